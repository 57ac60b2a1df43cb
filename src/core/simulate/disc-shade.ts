import type { Point } from '../geometry/affine';
import { standardNormal, type Rng } from '../math/random';
import { dotAngles } from '../target/code-book';
import type { CodedFigure } from '../target/coded-figure';
import { CODE_DOT_SHARE, CODE_RING_SHARE } from '../target/disc';
import { LIFT_OFF_RING_INNER_MM, LIFT_OFF_RING_OUTER_MM } from '../target/lift-off';

/** What became of a printed disc and the cut about it. */
export const DISC_FATES = ['whole', 'half-weeded', 'not-weeded', 'torn', 'missing', 'covered'] as const;
export type DiscFate = (typeof DISC_FATES)[number];

/** How a piece that was lifted out lies on the glass. */
export interface Lying {
  readonly at: Point;
  readonly turnRad: number;
  readonly isMirrored: boolean;
}

export interface SimulatedDisc extends Omit<CodedFigure, 'setNo' | 'spotNo'> {
  /** The cut against the print, mm. */
  readonly cutOff: Point;
  readonly fate: DiscFate;
  /** Of a lifted piece; else it lies where the sheet has it. */
  readonly lying?: Lying;
}

export const PAPER = 232;
/** Dark card under loose pieces. */
export const CARD = 52;
const INK = 38;
const LINER = 210;
/** What a pen leaves, or what was rubbed into a slit. */
const LINE = 45;
const SHADOW_DEPTH_MM = 0.08;

/** Brightness of one figure at a place told from its middle, mm; null where it prints nothing. */
export type Shade = (x: number, y: number) => number | null;

export interface Look {
  readonly blurMm: number;
  readonly raggedMm: number;
  readonly raggedAlongMm: number;
  /** How much the ink spreads beyond what was drawn, mm. */
  readonly inkGainMm: number;
  /** Width of a pen's line, or of a rubbed slit. */
  readonly lineWidthMm: number;
  readonly shadow: number;
  /** Unit vector of the carriage's travel, sheet frame. */
  readonly travel: Point;
  readonly rng: Rng;
}

/** An edge's deviation by angle: white noise smoothed along the edge by a bell of the given width. */
function raggedEdge(radiusMm: number, sdMm: number, alongMm: number, rng: Rng): (angle: number) => number {
  const stepMm = 0.02;
  const n = Math.max(64, Math.round((2 * Math.PI * radiusMm) / stepMm));
  const white = Float64Array.from({ length: n }, () => standardNormal(rng));
  const reach = Math.ceil((3 * alongMm) / stepMm);
  const bell = Float64Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-(((k - reach) * stepMm) ** 2) / (2 * alongMm ** 2)),
  );
  const norm = sdMm / Math.sqrt(bell.reduce((sum, b) => sum + b * b, 0));
  const values = Float64Array.from({ length: n }, (_, i) => {
    let sum = 0;
    for (let k = -reach; k <= reach; k++) sum += bell[k + reach]! * white[(i + k + n) % n]!;
    return norm * sum;
  });
  return (angle) => {
    const at = ((angle / (2 * Math.PI)) * n + 2 * n) % n;
    const i = Math.floor(at);
    return values[i]! + (at - i) * (values[(i + 1) % n]! - values[i]!);
  };
}

/** Share of a blurred edge's inside at a signed distance (positive inside): the normal distribution, Abramowitz and Stegun 26.2.17, from memory. */
function insideShare(distanceMm: number, blurMm: number): number {
  const z = Math.abs(distanceMm) / blurMm;
  if (z > 5) return distanceMm > 0 ? 1 : 0;
  const t = 1 / (1 + 0.2316419 * z);
  const tail =
    Math.exp((-z * z) / 2) *
    0.3989422804 *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return distanceMm > 0 ? 1 - tail : tail;
}

function holeShade(
  disc: SimulatedDisc,
  look: Look,
): (x: number, y: number) => { readonly open: number; readonly level: number } {
  const { cutRadiusMm, cutOff, fate } = disc;
  const edge = raggedEdge(cutRadiusMm, look.raggedMm, look.raggedAlongMm, look.rng);
  const halfAt = 2 * Math.PI * look.rng();
  return (px, py) => {
    const [x, y] = [px - cutOff.x, py - cutOff.y];
    const angle = Math.atan2(y, x);
    const depth = cutRadiusMm + edge(angle) - Math.hypot(x, y);
    let open = insideShare(depth, look.blurMm);
    if (fate === 'not-weeded') open = 0;
    if (fate === 'half-weeded') open *= insideShare(x * Math.cos(halfAt) + y * Math.sin(halfAt), look.blurMm);
    const facing = Math.max(0, -(x * look.travel.x + y * look.travel.y) / (Math.hypot(x, y) + 1e-9));
    const level = LINER * (1 - look.shadow * facing * Math.exp(-Math.max(0, depth) / SHADOW_DEPTH_MM));
    return { open, level };
  };
}

type Layer = (x: number, y: number) => number;

/** Ink of a printed round: between its two edges, in its dots, and in the ring that a lift-off disc is traced by. */
function inkLayer(disc: SimulatedDisc, look: Look): Layer {
  const { radiusMm, inkFromMm, codeNo, cutShape } = disc;
  const { blurMm, inkGainMm } = look;
  const ragged = (r: number) => raggedEdge(r, look.raggedMm, look.raggedAlongMm, look.rng);
  const outer = ragged(radiusMm);
  const inner = inkFromMm > 0 ? ragged(inkFromMm) : null;
  const ringMm = radiusMm * CODE_RING_SHARE;
  const dots = dotAngles(codeNo).map((angle) => ({ x: ringMm * Math.cos(angle), y: ringMm * Math.sin(angle) }));
  const dotMm = radiusMm * CODE_DOT_SHARE + inkGainMm;
  const between = (r: number, from: number, to: number): number =>
    insideShare(to + inkGainMm - r, blurMm) - insideShare(from - inkGainMm - r, blurMm);
  return (x, y) => {
    const r = Math.hypot(x, y);
    const angle = Math.atan2(y, x);
    if (r < radiusMm + 0.4) {
      const solid = insideShare(radiusMm + inkGainMm + outer(angle) - r, blurMm);
      return inner ? solid - insideShare(inkFromMm - inkGainMm + inner(angle) - r, blurMm) : solid;
    }
    if (cutShape === 'edge' && r > LIFT_OFF_RING_INNER_MM - 0.3)
      return between(r, LIFT_OFF_RING_INNER_MM, LIFT_OFF_RING_OUTER_MM);
    const near = dots.reduce((least, dot) => Math.min(least, Math.hypot(x - dot.x, y - dot.y)), Infinity);
    return insideShare(dotMm - near, blurMm);
  };
}

/** What the cut makes of the print below it. */
type Cut = (x: number, y: number, printed: number) => number;

function holeCut(disc: SimulatedDisc, look: Look): Cut {
  const hole = holeShade(disc, look);
  return (x, y, printed) => {
    const { open, level } = hole(x, y);
    return printed * (1 - open) + level * open;
  };
}

/** A half of it is missing where a disc is half weeded. */
function halfShare({ fate }: SimulatedDisc, { blurMm, rng }: Look): Layer {
  const halfAt = 2 * Math.PI * rng();
  if (fate === 'not-weeded') return () => 0;
  return fate === 'half-weeded' ? (x, y) => insideShare(x * Math.cos(halfAt) + y * Math.sin(halfAt), blurMm) : () => 1;
}

function lineCut(disc: SimulatedDisc, look: Look): Cut {
  const { cutRadiusMm, cutOff } = disc;
  const { lineWidthMm, blurMm } = look;
  const edge = raggedEdge(cutRadiusMm, look.raggedMm, look.raggedAlongMm, look.rng);
  const share = halfShare(disc, look);
  return (px, py, printed) => {
    const [x, y] = [px - cutOff.x, py - cutOff.y];
    const off = cutRadiusMm + edge(Math.atan2(y, x)) - Math.hypot(x, y);
    const drawn = insideShare(off + lineWidthMm / 2, blurMm) - insideShare(off - lineWidthMm / 2, blurMm);
    return printed + (LINE - printed) * drawn * share(x, y);
  };
}

/** The edge of a lifted piece on dark card; what was not lifted lies in the rest of its sheet. */
function edgeCut(disc: SimulatedDisc, look: Look): Cut {
  const { cutRadiusMm, cutOff } = disc;
  const edge = raggedEdge(cutRadiusMm, look.raggedMm, look.raggedAlongMm, look.rng);
  const share = halfShare(disc, look);
  return (px, py, printed) => {
    const [x, y] = [px - cutOff.x, py - cutOff.y];
    const outside = insideShare(Math.hypot(x, y) - cutRadiusMm - edge(Math.atan2(y, x)), look.blurMm);
    return printed + (CARD - printed) * outside * share(x, y);
  };
}

const CUTS: Readonly<Record<CodedFigure['cutShape'], (disc: SimulatedDisc, look: Look) => Cut>> = {
  hole: holeCut,
  line: lineCut,
  edge: edgeCut,
};

/** How far from its middle a figure changes what lies there. */
export const shadeReachMm = ({ radiusMm, cutShape, cutRadiusMm }: SimulatedDisc): number =>
  cutShape === 'edge' ? cutRadiusMm + 3.5 : radiusMm * (CODE_RING_SHARE + CODE_DOT_SHARE) + 0.6;

/** A printed round and the cut about it. */
export function shadeOf(disc: SimulatedDisc, look: Look): Shade {
  const { radiusMm, fate, cutShape } = disc;
  const ink = inkLayer(disc, look);
  const cut = CUTS[cutShape](disc, look);
  const torn = { angle: 2 * Math.PI * look.rng(), at: radiusMm * (0.2 + 0.5 * look.rng()) };
  const reachMm = shadeReachMm(disc);
  return (x, y) => {
    if (fate === 'missing' || Math.hypot(x, y) > reachMm) return null;
    if (fate === 'torn' && x * Math.cos(torn.angle) + y * Math.sin(torn.angle) > torn.at)
      return cutShape === 'edge' ? CARD : PAPER;
    return cut(x, y, PAPER + (INK - PAPER) * ink(x, y));
  };
}
