import { then, type Affine } from '../geometry/affine';
import type { Box } from '../target/block';
import type { Placement } from './fill-page';

/** From a cell (its lower left corner the origin) to its place on the page, upright or a quarter turned, counter-clockwise. */
export function cellToPage({ box, turnDeg }: Pick<Placement, 'box' | 'turnDeg'>): Affine<'page', 'page'> {
  const place = { xx: 1, xy: 0, yx: 0, yy: 1, tx: box.left, ty: box.bottom };
  if (turnDeg === 0) return place;
  // Turned about its corner the cell lies to the left of it: it is as wide as it was high.
  return then({ xx: 0, xy: -1, yx: 1, yy: 0, tx: box.width, ty: 0 }, place);
}

/** A box of a cell on the page. */
export function boxOnPage(inside: Box, placement: Pick<Placement, 'box' | 'turnDeg'>): Box {
  const { box, turnDeg } = placement;
  if (turnDeg === 0) return { ...inside, left: box.left + inside.left, bottom: box.bottom + inside.bottom };
  return {
    left: box.left + box.width - inside.bottom - inside.height,
    bottom: box.bottom + inside.left,
    width: inside.height,
    height: inside.width,
  };
}
