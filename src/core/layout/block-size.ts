import type { SheetSize } from '../units/sheet-size';
import type { Placement } from './fill-page';

/** Room about the outermost copies, so that a correction of the cut lines stays inside. */
const ROOM_MM = 2;

/**
 * The smallest box about a page's middle that holds every copy, in whole mm and even: what a program is given that places the
 * drawing in the middle of its own page.
 */
export function blockSize(placements: readonly Pick<Placement, 'box'>[], page: SheetSize): SheetSize {
  const half = (from: number, size: number, whole: number): number =>
    Math.max(Math.abs(from - whole / 2), Math.abs(from + size - whole / 2));
  const x = placements.reduce((most, { box }) => Math.max(most, half(box.left, box.width, page.widthMm)), 0);
  const y = placements.reduce((most, { box }) => Math.max(most, half(box.bottom, box.height, page.lengthMm)), 0);
  return { widthMm: 2 * Math.ceil(x + ROOM_MM), lengthMm: 2 * Math.ceil(y + ROOM_MM) };
}
