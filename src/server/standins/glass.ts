import 'server-only';
import type { Point } from '@/core/geometry/affine';
import { standardNormal, type Rng } from '@/core/math/random';
import type { CutLine } from '@/core/shop/cut-lines';
import { LIFT_OFF_CLEAR_MM } from '@/core/target/lift-off';
import type { SheetPicture } from './print-and-cut';

/** Clean: as one would hand it in. Worn: dust, a hair, a tear, a figure whose cut does not show. */
export const SHEET_CONDITIONS = ['clean', 'worn'] as const;
export type SheetCondition = (typeof SHEET_CONDITIONS)[number];

/** What is laid on the glass. */
export interface GlassOrder {
  readonly pageMm: { readonly widthMm: number; readonly lengthMm: number };
  readonly condition: SheetCondition;
  readonly cutLine: CutLine;
  /** Discs lifted out and laid loose on dark card. */
  readonly isLifted: boolean;
  /** Which print of lifted discs lies towards the lamp. */
  readonly face: 'front' | 'back';
}

const PAPER = 232;
const INK = 36;
const LINER = 212;
const SHADE = 120;
const CARD = 58;
/** The lamp stands to one side of the sensor: what it does not reach inside a hole, mm along the travel. */
const SHADOW_MM = 0.045;
const RAGGED_MM = 0.008;

export const gray = (level: number): string => `rgb(${level},${level},${level})`;

/** How a cut that is not weeded shows. */
const LINES: Readonly<Record<CutLine, { readonly level: number; readonly widthMm: number }>> = {
  weeded: { level: 170, widthMm: 0.03 },
  rubbed: { level: 55, widthMm: 0.07 },
  pen: { level: 50, widthMm: 0.3 },
};

/** Corners of a closed outline within 1 um of each other: what lifts out when it is weeded. */
function isClosed(cut: readonly Point[]): boolean {
  const [first, last] = [cut[0], cut.at(-1)];
  return cut.length > 3 && !!first && !!last && Math.hypot(first.x - last.x, first.y - last.y) < 1e-3;
}

const isRound = (cut: readonly Point[]): boolean => isClosed(cut) && cut.length > 40;

const path = (points: readonly Point[], rng: Rng): string =>
  points
    .map(({ x, y }, i) => {
      const [dx, dy] = [RAGGED_MM * standardNormal(rng), RAGGED_MM * standardNormal(rng)];
      return `${i === 0 ? 'M' : 'L'}${(x + dx).toFixed(4)} ${(y + dy).toFixed(4)}`;
    })
    .join('');

const plainPath = (points: readonly Point[]): string =>
  points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(4)} ${y.toFixed(4)}`).join('');

function inkSvg(ink: SheetPicture['ink'], rng: Rng): string {
  const colour = gray(INK);
  return ink
    .map(({ points, isFilled, widthMm }) =>
      isFilled
        ? `<path d="${path(points, rng)}Z" fill="${colour}"/>`
        : `<path d="${plainPath(points)}" fill="none" stroke="${colour}" stroke-width="${widthMm}"/>`,
    )
    .join('');
}

/** A hole: the liner behind it, dark where the lamp does not reach. */
function holeSvg(cut: readonly Point[], id: number, travel: Point, rng: Rng): string {
  const d = `${path(cut, rng)}Z`;
  const shift = `translate(${SHADOW_MM * travel.x} ${SHADOW_MM * travel.y})`;
  return (
    `<clipPath id="h${id}"><path d="${d}"/></clipPath><path d="${d}" fill="${gray(SHADE)}"/>` +
    `<g clip-path="url(#h${id})"><path d="${d}" transform="${shift}" fill="${gray(LINER)}"/></g>`
  );
}

function lineSvg(cut: readonly Point[], cutLine: CutLine): string {
  const { level, widthMm } = LINES[cutLine];
  return `<path d="${plainPath(cut)}" fill="none" stroke="${gray(level)}" stroke-width="${widthMm}"/>`;
}

function litterSvg({ widthMm, lengthMm }: GlassOrder['pageMm'], rng: Rng): string {
  const at = (): Point => ({ x: (rng() - 0.5) * widthMm, y: (rng() - 0.5) * lengthMm });
  const specks = Array.from({ length: 400 }, () => {
    const { x, y } = at();
    return `<circle cx="${x}" cy="${y}" r="${0.03 + 0.1 * rng()}" fill="${gray(rng() < 0.6 ? 70 : 228)}"/>`;
  });
  const hairs = Array.from({ length: 8 }, () => {
    const [a, b, c] = [at(), at(), at()];
    const near = (p: Point): string => `${a.x + (p.x - a.x) / 8} ${a.y + (p.y - a.y) / 8}`;
    return `<path d="M${a.x} ${a.y}Q${near(b)} ${near(c)}" fill="none" stroke="${gray(60)}" stroke-width="0.08"/>`;
  });
  return [...specks, ...hairs].join('');
}

const middleOf = (points: readonly Point[]): Point => ({
  x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
  y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
});

const paperSvg = ({ widthMm, lengthMm }: GlassOrder['pageMm'], level: number): string =>
  `<rect x="${-widthMm / 2}" y="${-lengthMm / 2}" width="${widthMm}" height="${lengthMm}" fill="${gray(level)}"/>`;

/** The sheet as it lies on the glass. Its y points up, the picture's down. */
function wholeSheet(picture: SheetPicture, order: GlassOrder, turnDeg: number, rng: Rng): string {
  const { pageMm, condition, cutLine } = order;
  const radians = (turnDeg * Math.PI) / 180;
  // The picture's way down, seen from the sheet.
  const travel = { x: -Math.sin(radians), y: -Math.cos(radians) };
  const rounds = picture.cuts.filter(isRound);
  const isWorn = condition === 'worn';
  const spoilt = isWorn ? rounds.slice(-1) : [];
  const torn = isWorn ? rounds.slice(-2, -1).map(middleOf) : [];
  const shown = picture.cuts.filter((cut) => cutLine === 'weeded' || !spoilt.includes(cut));
  const isHole = (cut: readonly Point[]): boolean => cutLine === 'weeded' && isClosed(cut) && !spoilt.includes(cut);
  return [
    paperSvg(pageMm, PAPER),
    inkSvg(picture.ink, rng),
    ...shown.filter((cut) => !isHole(cut)).map((cut) => lineSvg(cut, cutLine)),
    ...shown.filter(isHole).map((cut, i) => holeSvg(cut, i, travel, rng)),
    ...torn.map(({ x, y }) => `<path d="M${x + 1} ${y - 6}l6 0l0 12l-5 0z" fill="${gray(PAPER - 4)}"/>`),
    isWorn ? litterSvg(pageMm, rng) : '',
  ].join('');
}

const PIECE_PITCH_MM = 32;

/** Where pieces are laid on the card, row by row. */
function placesOnCard({ widthMm, lengthMm }: GlassOrder['pageMm'], count: number): readonly Point[] {
  const columns = Math.max(1, Math.floor((widthMm - 10) / PIECE_PITCH_MM));
  return Array.from({ length: count }, (_, i) => ({
    x: ((i % columns) - (columns - 1) / 2) * PIECE_PITCH_MM,
    y: lengthMm / 2 - PIECE_PITCH_MM * (0.7 + Math.floor(i / columns)),
  }));
}

interface LiftedPiece {
  readonly id: number;
  readonly cut: readonly Point[];
  /** A scrap of its sheet is still round it: it was not lifted out. */
  readonly isScrap: boolean;
  readonly face: GlassOrder['face'];
}

/** A piece with what is printed on it, its middle at 0, turned some way of its own. */
function pieceSvg({ id, cut, isScrap, face }: LiftedPiece, ink: SheetPicture['ink'], rng: Rng): string {
  const { x, y } = middleOf(cut.slice(1));
  const reach = LIFT_OFF_CLEAR_MM + 3;
  const own = ink.filter(({ points }) => points.every((p) => Math.hypot(p.x - x, p.y - y) < reach));
  const d = `${path(cut, rng)}Z`;
  const paper = `fill="${gray(PAPER)}"`;
  const scrap = `<rect x="${x - reach}" y="${y - reach}" width="${2 * reach}" height="${2 * reach}" ${paper}/>`;
  return (
    `<g transform="rotate(${360 * rng()}) scale(${face === 'back' ? -1 : 1} 1) translate(${-x} ${-y})"><clipPath id="p${id}"><path d="${d}"/></clipPath>` +
    `${isScrap ? scrap : ''}<path d="${d}" ${paper}/><g clip-path="url(#p${id})">${inkSvg(own, rng)}</g></g>`
  );
}

/** The lifted discs on dark card, each turned some way of its own. */
function loosePieces({ ink, cuts }: SheetPicture, { pageMm, condition, face }: GlassOrder, rng: Rng): string {
  const rounds = cuts.filter(isRound);
  const places = placesOnCard(pageMm, rounds.length);
  const isWorn = condition === 'worn';
  const pieces = rounds.map((cut, i) => {
    const { x, y } = places[i] ?? { x: 0, y: 0 };
    const [dx, dy] = [2 * (rng() - 0.5), 2 * (rng() - 0.5)];
    const piece = pieceSvg({ cut, face, id: i, isScrap: isWorn && i === rounds.length - 1 }, ink, rng);
    return `<g transform="translate(${x + dx} ${y + dy})">${piece}</g>`;
  });
  const torn = isWorn ? places.slice(-2, -1) : [];
  return [
    paperSvg(pageMm, CARD),
    ...pieces,
    ...torn.map(({ x, y }) => `<path d="M${x + 2} ${y - 14}l14 0l0 28l-11 0z" fill="${gray(CARD)}"/>`),
    isWorn ? litterSvg(pageMm, rng) : '',
  ].join('');
}

/** Everything that lies on the glass, in mm about its middle, y up. */
export const glassSvg = (picture: SheetPicture, order: GlassOrder, turnDeg: number, rng: Rng): string =>
  order.isLifted ? loosePieces(picture, order, rng) : wholeSheet(picture, order, turnDeg, rng);
