import type { Pixel } from '../scan/gray';
import { homographyThrough } from '../scan/lens';
import type { EdgeLook } from './border-looks';
import type { PieceSide } from './piece-reading';
import { robustFit } from './robust-fit';

/** The sides a look may be at, by its direction outward: none near a corner. */
export interface Rectangle {
  readonly sideOf: (look: EdgeLook) => PieceSide | null;
  /** Where the sides meet, round corners left out of account: from the upper left clockwise as the picture shows it. */
  readonly corners: readonly [Pixel, Pixel, Pixel, Pixel];
}

/** Sides are told by directions within this of their own, radians. */
const NEAR_RAD = 0.3;
/** A side whose looks lie further from a straight line than this share of its length is none. */
const BENT_SHARE = 0.006;
const LEAST_LOOKS = 12;
const LEAST_SD_PX = 0.3;

/** How the sides lie: the turn that brings them nearest to upright, by the mean of four times their angles. */
function turnOf(looks: readonly EdgeLook[]): number {
  let [sin, cos] = [0, 0];
  for (const { outward } of looks) {
    const angle = Math.atan2(outward.y, outward.x);
    sin += Math.sin(4 * angle);
    cos += Math.cos(4 * angle);
  }
  return Math.atan2(sin, cos) / 4;
}

const turned = ({ x, y }: Pixel, angle: number): Pixel => ({
  x: Math.cos(angle) * x - Math.sin(angle) * y,
  y: Math.sin(angle) * x + Math.cos(angle) * y,
});

function sideTowards({ x, y }: Pixel): PieceSide | null {
  if (Math.abs(Math.atan2(x, -y)) < NEAR_RAD) return 'top';
  if (Math.abs(Math.atan2(y, x)) < NEAR_RAD) return 'right';
  if (Math.abs(Math.atan2(x, y)) < NEAR_RAD) return 'bottom';
  return Math.abs(Math.atan2(y, -x)) < NEAR_RAD ? 'left' : null;
}

/** a + b t: y by x of an upper or lower side, x by y of one at the left or right. */
interface SideLine {
  readonly a: number;
  readonly b: number;
}

function lineThrough(points: readonly Pixel[], isAcross: boolean): SideLine | null {
  if (points.length < LEAST_LOOKS) return null;
  const along = points.map((p) => (isAcross ? p.x : p.y));
  const values = points.map((p) => (isAcross ? p.y : p.x));
  const fit = robustFit(
    along.map((t) => [1, t]),
    values,
    LEAST_SD_PX,
  );
  const length = Math.max(...along) - Math.min(...along);
  if (!fit || fit.residualSd > BENT_SHARE * length) return null;
  return { a: fit.parameters[0]!, b: fit.parameters[1]! };
}

/** Where y = across.a + across.b x meets x = down.a + down.b y. */
function meeting(across: SideLine, down: SideLine): Pixel {
  const y = (across.a + across.b * down.a) / (1 - across.b * down.b);
  return { x: down.a + down.b * y, y };
}

/** Straight lines through the looks of four sides; null where they are not straight, or not four. */
export function rectangleThrough(looks: readonly EdgeLook[]): Rectangle | null {
  const turn = turnOf(looks);
  const sideOf = ({ outward }: EdgeLook): PieceSide | null => sideTowards(turned(outward, -turn));
  const line = (side: PieceSide): SideLine | null =>
    lineThrough(
      looks.filter((look) => sideOf(look) === side).map(({ cut }) => turned(cut, -turn)),
      side === 'top' || side === 'bottom',
    );
  const [top, right, bottom, left] = [line('top'), line('right'), line('bottom'), line('left')];
  if (!top || !right || !bottom || !left) return null;
  const at = (across: SideLine, down: SideLine): Pixel => turned(meeting(across, down), turn);
  return { sideOf, corners: [at(top, left), at(top, right), at(bottom, right), at(bottom, left)] };
}

const distance = (a: Pixel, b: Pixel): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Mean width over mean height as seen. */
export const seenRatio = ([a, b, c, d]: Rectangle['corners']): number =>
  (distance(a, b) + distance(d, c)) / (distance(a, d) + distance(b, c));

/** From the picture to mm from the piece's middle, x right and y up; the tilt of the camera falls out. Null of no quadrangle. */
export function toMillimetres(
  corners: Rectangle['corners'],
  { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number },
): ((p: Pixel) => Pixel) | null {
  const [x, y] = [widthMm / 2, heightMm / 2];
  const places = [
    { x: -x, y },
    { x, y },
    { x, y: -y },
    { x: -x, y: -y },
  ];
  const h = homographyThrough(corners.map((at, i) => ({ at, seen: places[i]! })));
  if (!h) return null;
  return (p) => {
    const w = h[6]! * p.x + h[7]! * p.y + h[8]!;
    return { x: (h[0]! * p.x + h[1]! * p.y + h[2]!) / w, y: (h[3]! * p.x + h[4]! * p.y + h[5]!) / w };
  };
}
