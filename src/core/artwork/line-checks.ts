import type { Box } from '../target/block';
import { grownBox } from '../layout/page-area';
import { boxesOverlap } from '../target/block';
import { lineBox, lineLength, samplesOf, type CutLine } from './cut-line';
import { indexLines, nearestLine } from './line-index';

export type LineFindingKind = 'doubled' | 'original-under-offset' | 'off-art' | 'speck' | 'lettering';

/** Something about cut lines that is looked at before it is printed. */
export interface LineFinding {
  readonly kind: LineFindingKind;
  /** Where on the drawing. */
  readonly box: Box;
  /** Where in the file. */
  readonly places: readonly string[];
  /** Distance, length or count that the finding speaks of. */
  readonly amount: number;
}

/** Lines nearer than this lie on each other: half a plotter step and a hand's rounding. Common practice, no published source. */
export const SAME_LINE_MM = 0.05;
/** Share of a line that lies on another before it is called doubled. */
const DOUBLED_SHARE = 0.5;
/** An outline farther out than this is not its original's offset. Common practice, no published source. */
export const WIDEST_OFFSET_MM = 10;
/** A closed line smaller than this in both directions cannot be cut or weeded. Common practice, no published source. */
export const SPECK_MM = 1;

const SAMPLE_MM = 0.5;

/** Lines that lie on another for at least half of their length: both would be cut. Each pair is told once. */
export function doubledLines(lines: readonly CutLine[]): readonly LineFinding[] {
  const index = indexLines(lines, 1);
  return lines.flatMap((line, own): LineFinding[] => {
    const samples = samplesOf(line, SAMPLE_MM);
    const on = new Map<number, number>();
    for (const p of samples) {
      // Of the pair the later line is told of, so that each is found once.
      const near = nearestLine(index, p, (other) => other < own);
      if (near.distanceMm <= SAME_LINE_MM) on.set(near.line, (on.get(near.line) ?? 0) + 1);
    }
    const total = [...on.values()].reduce((a, b) => a + b, 0);
    if (samples.length < 2 || total / samples.length < DOUBLED_SHARE) return [];
    const others = [...on.keys()].map((other) => lines[other]?.place ?? '');
    const amount = (lineLength(line) * total) / samples.length;
    return [{ kind: 'doubled', box: lineBox(line), places: [line.place, ...others], amount }];
  });
}

/** Even-odd test of a place inside a closed line. */
function isInside(p: { readonly x: number; readonly y: number }, { points }: CutLine): boolean {
  let inside = false;
  for (const [i, a] of points.entries()) {
    const b = points[(i + 1) % points.length]!;
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

/**
 * Closed lines that run at one distance inside another closed line all the way round: an original that was left under its
 * offset, so that both would be cut. A round hole in a round piece looks the same; it is a question, not a fault.
 */
export function originalsUnderOffsets(lines: readonly CutLine[]): readonly LineFinding[] {
  const closed = lines.filter((line) => line.isClosed && line.points.length > 2);
  const index = indexLines(closed, WIDEST_OFFSET_MM);
  return closed.flatMap((line, own): LineFinding[] => {
    const samples = samplesOf(line, SAMPLE_MM, 400);
    const around = new Set(
      samples.slice(0, 8).flatMap((p) => {
        const { line: other, distanceMm } = nearestLine(index, p, (o) => o !== own);
        return distanceMm > SAME_LINE_MM && distanceMm <= WIDEST_OFFSET_MM ? [other] : [];
      }),
    );
    for (const other of around) {
      const outer = closed[other]!;
      if (!samples.every((p) => isInside(p, outer))) continue;
      const distances = samples.map((p) => nearestLine(index, p, (o) => o === other).distanceMm);
      const least = Math.min(...distances);
      const most = Math.max(...distances);
      if (most - least > 0.1 * least + 2 * SAME_LINE_MM) continue;
      return [
        {
          kind: 'original-under-offset',
          box: lineBox(line),
          places: [line.place, outer.place],
          amount: (least + most) / 2,
        },
      ];
    }
    return [];
  });
}

/** Cut lines that touch none of the art, nor come nearer to it than `nearMm`. */
export function linesOffArt(
  lines: readonly CutLine[],
  artBoxes: readonly Box[],
  nearMm: number,
): readonly LineFinding[] {
  return lines.flatMap((line): LineFinding[] => {
    const box = lineBox(line);
    const near = grownBox(box, nearMm);
    if (artBoxes.some((art) => boxesOverlap({ ...art, width: art.width + 1e-6, height: art.height + 1e-6 }, near)))
      return [];
    return [{ kind: 'off-art', box, places: [line.place], amount: lineLength(line) }];
  });
}

/** Closed lines too small to be cut, and open ones too short. */
export function specks(lines: readonly CutLine[]): readonly LineFinding[] {
  return lines.flatMap((line): LineFinding[] => {
    const box = lineBox(line);
    if (Math.max(box.width, box.height) >= SPECK_MM) return [];
    return [{ kind: 'speck', box, places: [line.place], amount: Math.max(box.width, box.height) }];
  });
}

/** Letters stand side by side: so many closed lines of about one height on one line, with gaps less than their height. */
const LEAST_LETTERS = 4;
/** Lettering higher than this may well be meant to be cut. Common practice, no published source. */
export const TALLEST_LETTER_MM = 15;

/** Rows of small closed lines that look like lettering turned into outlines: text that was set to cut. */
export function letteringAmong(lines: readonly CutLine[]): readonly LineFinding[] {
  const small = lines
    .filter((line) => line.isClosed)
    .map((line) => ({ line, box: lineBox(line) }))
    .filter(({ box }) => box.height >= SPECK_MM && box.height <= TALLEST_LETTER_MM && box.width <= 2 * box.height)
    .sort((a, b) => a.box.left - b.box.left);
  const rows: (typeof small)[] = [];
  for (const letter of small) {
    const row = rows.find((r) => {
      const last = r.at(-1)!.box;
      const { box } = letter;
      const gap = box.left - last.left - last.width;
      return (
        Math.abs(box.bottom - last.bottom) <= 0.2 * last.height &&
        gap <= last.height &&
        gap >= -0.2 * last.height &&
        box.height > 0.5 * last.height &&
        box.height < 2 * last.height
      );
    });
    if (row) row.push(letter);
    else rows.push([letter]);
  }
  return rows
    .filter((row) => row.length >= LEAST_LETTERS && !isStepped(row.map((r) => r.box)))
    .map((row): LineFinding => {
      const box = lineBox({ points: row.flatMap((r) => r.line.points) });
      return {
        kind: 'lettering',
        box,
        places: [...new Set(row.map((r) => r.line.place))].slice(0, 3),
        amount: row.length,
      };
    });
}

/** Equal copies at one pitch are steps of one piece, not letters. */
function isStepped(boxes: readonly Box[]): boolean {
  const [first] = boxes;
  return boxes.every(
    (box) => Math.abs(box.width - first!.width) < SAME_LINE_MM && Math.abs(box.height - first!.height) < SAME_LINE_MM,
  );
}
