import 'server-only';
import { apply, inverseOf, then, translation, type Affine, type Point } from '@/core/geometry/affine';
import type { LoadModel } from '@/core/fit/load-noise';
import { fileToSheet, type FileAxes } from '@/core/geometry/file-axes';
import type { Load } from '@/core/geometry/load';
import type { Rng } from '@/core/math/random';
import { fail, ok, type Result } from '@/core/result';
import type { MachineSetting } from '@/core/setting/machine-setting';
import { actualCutMap, type SetupTruth } from '@/core/simulate/simulated-load';
import { OWN_MARK_MM } from '@/core/target/block';
import { MM_PER_INCH } from '@/core/units/length';
import { readHpgl } from '@/formats/hpgl/hpgl';
import { readSvg, type SvgPolyline } from '@/formats/svg/read-svg';
import { traceRings } from './trace-rings';

/** What lies on the table after printing and cutting, in the sheet frame of the real paper, mm. */
export interface SheetPicture {
  readonly ink: readonly { readonly points: readonly Point[]; readonly isFilled: boolean; readonly widthMm: number }[];
  readonly cuts: readonly (readonly Point[])[];
}

/** The very files a person would download; `printSvg` is proved equal to the PDF or picture that is printed. */
export type SheetFiles =
  | { readonly route: 'A'; readonly drawingSvg: string; readonly cutColour: string }
  | { readonly route: 'B' | 'E'; readonly printSvg: string; readonly picture: Buffer }
  | { readonly route: 'C'; readonly queueSvg: string; readonly cutColour: string }
  | {
      readonly route: 'D';
      readonly printSvg: string;
      readonly cut: { readonly format: 'hpgl' | 'svg'; readonly text: string };
    };

export interface StandinInput {
  readonly files: SheetFiles;
  readonly truth: SetupTruth;
  readonly load: Load;
  readonly axes: FileAxes;
  /** Marks the cutter reads, what it makes of them, and the corners that span the origin of a cut file, sheet frame. */
  readonly marks: readonly Point[];
  readonly loadModel: LoadModel;
  /** How far a program set the marks in on the printed copy; our own marks are found on the print itself. */
  readonly markMoves: readonly Point[] | null;
  /** A pen is in the holder. */
  readonly isPen: boolean;
  readonly extent: readonly Point[];
  readonly settings: readonly MachineSetting[];
  readonly valuesNow: readonly number[];
}

export interface StandinProblem {
  readonly kind: 'file-refused';
  readonly reason: string;
}

interface Drawing {
  readonly polylines: readonly SvgPolyline[];
  /** Drawing units to the sheet frame: the drawing's middle is the sheet's origin, y turned up. */
  readonly toSheet: Affine<'file'>;
  readonly mmPerUnit: number;
}

function openDrawing(text: string, mmPerUnit: number | null): Result<Drawing, StandinProblem> {
  const read = readSvg(text);
  if (!read.ok) return fail({ kind: 'file-refused', reason: read.error.reason });
  const [left, top, width, height] = read.value.viewBox;
  const scale = mmPerUnit ?? read.value.widthMm / width;
  const toSheet: Affine<'file'> = {
    xx: scale,
    xy: 0,
    yx: 0,
    yy: -scale,
    tx: -scale * (left + width / 2),
    ty: scale * (top + height / 2),
  };
  return ok({ polylines: read.value.polylines, toSheet, mmPerUnit: scale });
}

const place = (drawing: Drawing, line: SvgPolyline): readonly Point[] =>
  line.points.map((p) => apply(drawing.toSheet, { x: p.x, y: p.y }));

function inkOf(drawing: Drawing, print: Affine): SheetPicture['ink'] {
  return drawing.polylines
    .filter((line) => line.group === 'ink')
    .map((line) => ({
      points: place(drawing, line).map((p) => apply(print, p)),
      isFilled: line.isFilled,
      widthMm: line.strokeWidth * drawing.mmPerUnit,
    }));
}

interface Work {
  readonly drawing: Drawing;
  /** Nominal cut lines in the sheet frame as the cut file commands them. */
  readonly lines: readonly (readonly Point[])[];
}

/** Lines of one colour in one drawing: what a program does that is told which colour to cut. */
function byColour(text: string, mmPerUnit: number | null, colour: string): Result<Work, StandinProblem> {
  const drawing = openDrawing(text, mmPerUnit);
  if (!drawing.ok) return drawing;
  const lines = drawing.value.polylines.filter((line) => line.colour === colour && !line.isFilled);
  return ok({ drawing: drawing.value, lines: lines.map((line) => place(drawing.value, line)) });
}

function plainCut(input: StandinInput, files: SheetFiles & { route: 'D' }): Result<Work, StandinProblem> {
  const drawing = openDrawing(files.printSvg, null);
  if (!drawing.ok) return drawing;
  if (files.cut.format === 'svg') {
    const cut = openDrawing(files.cut.text, null);
    if (!cut.ok) return cut;
    return ok({ drawing: drawing.value, lines: cut.value.polylines.map((line) => place(cut.value, line)) });
  }
  const paths = readHpgl(files.cut.text);
  if (!paths.ok) return fail({ kind: 'file-refused', reason: `${paths.error.kind} in the cut file` });
  const back = fileToSheet(input.load, input.axes, input.extent);
  return ok({ drawing: drawing.value, lines: paths.value.map((path) => path.map((p) => apply(back, p))) });
}

async function commanded(input: StandinInput): Promise<Result<Work, StandinProblem>> {
  const { files, truth } = input;
  switch (files.route) {
    case 'A':
      // The sending program takes a drawing's plain numbers for px of its own size, whatever the file says in mm.
      return byColour(files.drawingSvg, MM_PER_INCH / truth.importPxPerInch, files.cutColour);
    case 'C':
      return byColour(files.queueSvg, null, files.cutColour);
    case 'D':
      return plainCut(input, files);
    case 'B':
    case 'E': {
      const drawing = openDrawing(files.printSvg, null);
      if (!drawing.ok) return drawing;
      const lines = await traceRings(files.picture, { growthMm: truth.traceGrowthMm ?? 0 });
      return ok({ drawing: drawing.value, lines });
    }
  }
}

/**
 * The print on the other face as it lies under the front's, by the back's own file: turned over, and out by what this
 * printer's turning leaves. Front's sheet frame.
 */
export function backInk(printSvg: string, truth: SetupTruth): Result<SheetPicture['ink'], StandinProblem> {
  const drawing = openDrawing(printSvg, null);
  if (!drawing.ok) return drawing;
  const { xMm, yMm, rotationRad: turn } = truth.backPrint ?? { xMm: 0, yMm: 0, rotationRad: 0 };
  const turnedOver: Affine = { xx: -1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 };
  const out: Affine = {
    xx: Math.cos(turn),
    xy: -Math.sin(turn),
    yx: Math.sin(turn),
    yy: Math.cos(turn),
    tx: xMm,
    ty: yMm,
  };
  return ok(inkOf(drawing.value, then(turnedOver, out)));
}

const middleOf = (points: readonly Point[]): Point => {
  const own = points.slice(0, 4);
  return { x: own.reduce((sum, p) => sum + p.x / 4, 0), y: own.reduce((sum, p) => sum + p.y / 4, 0) };
};

/** What an eye finds near each place where it looks for a mark: a solid square of a mark's size; its place when there is none. */
function movesOnPrint(drawing: Drawing, marks: readonly Point[]): readonly Point[] {
  const squares = drawing.polylines
    .filter((line) => line.isFilled && line.group === 'ink' && isMarkSized(place(drawing, line)))
    .map((line) => middleOf(place(drawing, line)));
  return marks.map((mark) => {
    const near = squares.find((s) => Math.hypot(s.x - mark.x, s.y - mark.y) < EYE_REACH_MM);
    return near ? { x: near.x - mark.x, y: near.y - mark.y } : { x: 0, y: 0 };
  });
}

/** How far from its place a mark is still found. */
const EYE_REACH_MM = 5;

function isMarkSized(points: readonly Point[]): boolean {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const sizes = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
  return points.length <= 5 && sizes.every((size) => Math.abs(size - OWN_MARK_MM) < 0.1);
}

/**
 * Stand-ins of printer, sending program and cutter: print the ink, read the marks with noise, move by the machine's own
 * error and its settings, cut. The truth stays inside; what comes out is a drawing to be read like a sheet.
 */
export async function printAndCut(input: StandinInput, rng: Rng): Promise<Result<SheetPicture, StandinProblem>> {
  const work = await commanded(input);
  if (!work.ok) return work;
  const { truth, load, marks, loadModel, settings, valuesNow, isPen } = input;
  const markMoves =
    input.files.route === 'D' ? movesOnPrint(work.value.drawing, marks) : (input.markMoves ?? undefined);
  const print: Affine = { xx: truth.printScale, xy: 0, yx: 0, yy: truth.printScale, tx: 0, ty: 0 };
  // The block moved on its page with its cut lines, before the marks were added.
  const onPage = translation(truth.placement?.xMm ?? 0, truth.placement?.yMm ?? 0);
  const actual = then(
    actualCutMap({ truth, load, marks, loadModel, isPen, ...(markMoves && { markMoves }), settings, valuesNow }, rng),
    print,
  );
  const cut = then(then(onPage, actual), inverseOf(onPage));
  return ok({
    ink: inkOf(work.value.drawing, print),
    cuts: work.value.lines.map((line) => line.map((p) => apply(cut, p))),
  });
}
