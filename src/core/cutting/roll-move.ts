import type { RollDrift } from '../drift/roll-drift';
import type { Affine, Point } from '../geometry/affine';
import { machineToFileAxes } from '../geometry/file-axes';
import type { Load } from '../geometry/load';
import type { PlaneMove } from '../geometry/plane-move';
import { cutCorrection } from '../setting/correct-cut';
import { correctionOnPage, type DrawingLies } from './page-move';

/** Steady drift of a roll as an error about the middle of its leading edge, plain data. */
export interface RollError {
  readonly affine: Affine<'machine', 'machine'>;
  /** What the bow adds across and along: so much times half the square of the way. */
  readonly bowPerMm: number;
  readonly alongBowPerMm: number;
}

const MM_PER_METRE = 1000;

/** All of a roll's steady parts. */
export function rollErrorOf({ across, along }: RollDrift): RollError {
  return {
    affine: {
      xx: 1 + (across.perWidth?.value ?? 0),
      xy: across.perMetreMm.value / MM_PER_METRE,
      yx: along.perWidth?.value ?? 0,
      yy: 1 + along.perMetreMm.value / MM_PER_METRE,
      tx: across.shiftMm.value,
      ty: along.shiftMm.value,
    },
    bowPerMm: across.bow.value / MM_PER_METRE ** 2,
    alongBowPerMm: along.bow.value / MM_PER_METRE ** 2,
  };
}

interface PageBox {
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
  readonly top: number;
}

const UPRIGHT: Load = { turnDeg: 0, face: 'ink-up' };

/** How a drawing of a roll's work lies: by the cutter's file axes, or upright with the leading edge below. */
const liesOf = (axes: Extract<DrawingLies, { kind: 'by-axes' }>['axes'] | null): DrawingLies =>
  axes ? { kind: 'by-axes', axes } : { kind: 'on-sheet', load: UPRIGHT };

/** Where the page's directions lie on the roll: along which of them it runs, and whether they grow the same way. */
function runsOf(lies: DrawingLies) {
  if (lies.kind === 'on-sheet') return { along: 'y', acrossSign: 1, alongSign: 1 } as const;
  const { xx, xy, yx, yy } = machineToFileAxes(lies.axes);
  return Math.abs(xx) > 0.5
    ? ({ along: 'y', acrossSign: Math.sign(xx), alongSign: Math.sign(yy) } as const)
    : ({ along: 'x', acrossSign: Math.sign(yx), alongSign: Math.sign(xy) } as const);
}

/** Middle of the leading edge of what is drawn, page frame. */
export function leadingEdge(box: PageBox, axes: Parameters<typeof liesOf>[0]): Point<'page'> {
  const { along, alongSign } = runsOf(liesOf(axes));
  const [x, y] = [(box.left + box.right) / 2, (box.bottom + box.top) / 2];
  if (along === 'y') return { x, y: alongSign > 0 ? box.bottom : box.top };
  return { x: alongSign > 0 ? box.left : box.right, y };
}

/** The move of a drawing's cut lines that takes a roll's steady drift out. */
export function rollMove(
  { affine, bowPerMm, alongBowPerMm }: RollError,
  axes: Parameters<typeof liesOf>[0],
  centre: Point<'page'>,
): PlaneMove {
  const lies = liesOf(axes);
  const { along, acrossSign, alongSign } = runsOf(lies);
  return {
    affine: correctionOnPage(cutCorrection(affine), lies, centre),
    bow: { perMm: -bowPerMm * acrossSign, alongPerMm: -alongBowPerMm * alongSign, along, pivot: centre },
  };
}
