import 'server-only';
import { apply, identity, type Point } from '@/core/geometry/affine';
import { fail, ok, type Result } from '@/core/result';
import type { Load } from '@/core/geometry/load';
import { cornersOf } from '@/core/geometry/affine';
import { ownMarkExtent } from '@/core/target/block';
import { writeDxf } from '@/formats/dxf/write-dxf';
import { writeHpgl, type HpglWriteError } from '@/formats/hpgl/hpgl';
import { writeSvg } from '@/formats/svg/write-svg';
import type { VectorDrawing } from '@/formats/vector-drawing';
import { writePdf } from '../documents/print-pdf';
import { writePng } from '../documents/print-png';
import {
  backPage,
  cutFilePaths,
  cutFilePlacing,
  cutPage,
  oneDrawing,
  pictureOnly,
  printPage,
  queuePage,
  type CutFile,
} from '../documents/sheet-drawing';
import { refusal, type Refusal } from './actor';
import { fileMove, withoutFigures } from './cut-moves';
import { onSheet, type CalibrationRecord, type CutPlan } from './record';
import { spotInkOf } from './spot-ink';

export const FILE_KINDS = [
  'drawing',
  'drawing-pdf',
  'drawing-dxf',
  'picture',
  'queue-pdf',
  'print-pdf',
  'print-svg',
  'back-pdf',
  'back-svg',
  'cut-hpgl',
  'cut-dxf',
  'cut-svg',
] as const;
export type FileKind = (typeof FILE_KINDS)[number];

export interface MadeFile {
  readonly name: string;
  readonly mediaType: string;
  readonly body: string | Buffer;
}

/** How the next cut's lines are moved, and under which load. */
export interface CutOrder {
  readonly plan: CutPlan;
  readonly load: Load;
}

/** Px per inch in which a drawing is written for the setup's program. A program that asks is told 96. */
export function drawingScale(record: CalibrationRecord): 72 | 96 {
  return record.setupRow.program?.importScale === '72' ? 72 : 96;
}

/** Ink as printed, the planned set moved, the other as drawn. */
function drawingOf(record: CalibrationRecord, { plan, load }: CutOrder): VectorDrawing {
  const moved: CutFile = { setNo: plan.setNo, move: fileMove(plan, load) };
  const still: CutFile = { setNo: plan.setNo === 1 ? 2 : 1, move: identity() };
  const sets = record.definition.sets === 2 ? [moved, still] : [moved];
  const cuts = [...sets].sort((a, b) => a.setNo - b.setNo);
  const whole = oneDrawing(record.definition, record.code, []);
  const lines = oneDrawing(withoutFigures(record.definition, plan), record.code, cuts).layers.slice(1);
  return { ...whole, layers: [...whole.layers, ...lines] };
}

const MEDIA = {
  svg: 'image/svg+xml',
  pdf: 'application/pdf',
  dxf: 'image/vnd.dxf',
  png: 'image/png',
  hpgl: 'application/vnd.hp-hpgl',
} as const;

type DrawnKind = Exclude<FileKind, 'cut-hpgl'>;

interface FileForm {
  readonly what: string;
  readonly type: 'svg' | 'pdf' | 'dxf' | 'png';
  readonly draw: (record: CalibrationRecord, order: CutOrder) => VectorDrawing;
  /** Written for the program's own numbers instead of true px. */
  readonly isForProgram?: true;
}

const printed = ({ definition, code, markMoves }: CalibrationRecord): VectorDrawing =>
  printPage(definition, code, markMoves);
const back = ({ definition, code }: CalibrationRecord): VectorDrawing => backPage(definition, code);
const lines = ({ definition, code }: CalibrationRecord, { plan, load }: CutOrder): VectorDrawing =>
  cutPage(withoutFigures(definition, plan), code, { setNo: plan.setNo, move: fileMove(plan, load) });

/** Every drawn file: its name's middle (# is the set's number), its form, its drawing. */
const FORMS: Readonly<Record<DrawnKind, FileForm>> = {
  drawing: { what: 'drawing-cut-#', type: 'svg', draw: drawingOf, isForProgram: true },
  'drawing-pdf': { what: 'drawing-cut-#', type: 'pdf', draw: drawingOf },
  'drawing-dxf': { what: 'lines-cut-#', type: 'dxf', draw: (record, order) => linesOnly(drawingOf(record, order)) },
  picture: { what: 'picture', type: 'png', draw: ({ definition, code }) => pictureOnly(definition, code) },
  'queue-pdf': { what: 'queue-cut-#', type: 'pdf', draw: queueDrawing },
  'print-svg': { what: 'print', type: 'svg', draw: printed },
  'print-pdf': { what: 'print', type: 'pdf', draw: printed },
  'back-svg': { what: 'back', type: 'svg', draw: back },
  'back-pdf': { what: 'back', type: 'pdf', draw: back },
  'cut-svg': { what: 'cut-#', type: 'svg', draw: lines },
  'cut-dxf': { what: 'cut-#', type: 'dxf', draw: lines },
};

function written(drawing: VectorDrawing, type: FileForm['type'], unitsPerInch: 72 | 96): string | Promise<Buffer> {
  switch (type) {
    case 'svg':
      return writeSvg(drawing, { unitsPerInch });
    case 'dxf':
      return writeDxf(drawing);
    case 'pdf':
      return writePdf(drawing);
    case 'png':
      return writePng(drawing);
  }
}

/** Makes one file of the calibration's check sheet; cut files are for the next cut and the stated load. */
export async function makeFile(
  whole: CalibrationRecord,
  kind: FileKind,
  order: CutOrder,
): Promise<Result<MadeFile, Refusal>> {
  const { plan, load } = order;
  const record = onSheet(whole, plan.sheetNo);
  const made = (what: string, type: keyof typeof MEDIA, body: string | Buffer): Result<MadeFile, Refusal> =>
    ok({ name: `check-sheet-${record.code}-${what}.${type}`, mediaType: MEDIA[type], body });
  if (kind === 'cut-hpgl') {
    const text = hpglText(record, order, { setNo: plan.setNo, move: fileMove(plan, load) });
    return text.ok ? made(`cut-${plan.setNo}-turned-${load.turnDeg}`, 'hpgl', text.value) : text;
  }
  const { what, type, draw, isForProgram } = FORMS[kind];
  const body = await written(draw(record, order), type, isForProgram ? drawingScale(record) : 96);
  return made(what.replace('#', String(plan.setNo)), type, body);
}

/** Cut lines and the size border without ink: the picture carries the rest. */
function linesOnly(drawing: VectorDrawing): VectorDrawing {
  const [ink, ...cuts] = drawing.layers;
  const border = ink?.paths.slice(0, 1) ?? [];
  return { ...drawing, layers: [{ name: 'border', colour: '#000000', paths: border }, ...cuts] };
}

export function queueDrawing(record: CalibrationRecord, { plan, load }: CutOrder): VectorDrawing {
  const cut: CutFile = { setNo: plan.setNo, move: fileMove(plan, load) };
  const spotInk = spotInkOf(record.setupRow);
  return queuePage(withoutFigures(record.definition, plan), record.code, cut, spotInk);
}

const HPGL_REFUSALS: Readonly<Record<HpglWriteError['kind'], string>> = {
  negative:
    'Moved this far, some cut lines would lie before the file\u2019s origin, where a cutter cannot follow. Bring the cut nearer with the machine\u2019s offset first.',
  'beyond-material':
    'Moved this far, some cut lines would run off the sheet. Bring the cut nearer with the machine\u2019s offset first.',
  empty: 'Nothing is left to cut in this set.',
};

function hpglText(record: CalibrationRecord, { plan, load }: CutOrder, cut: CutFile): Result<string, Refusal> {
  const { cutter } = record.setupRow;
  const { block } = record;
  const axes = { across: cutter.fileAcross, along: cutter.fileAlong };
  const placing = cutFilePlacing(block, load, axes);
  const inFile = (points: readonly Point[]): readonly Point<'file'>[] => points.map((p) => apply(placing, p));
  const page = inFile(cornersOf(block.page.widthMm, block.page.lengthMm));
  const marks = inFile(ownMarkExtent(block));
  const written = writeHpgl(cutFilePaths(withoutFigures(record.definition, plan), cut, load, axes), {
    toolNumber: cutter.hpglTool,
    ...(cutter.hpglOutlineFirst ? { outline: [...marks, marks[0] ?? { x: 0, y: 0 }] } : {}),
    limit: { xMm: Math.max(...page.map((p) => p.x)), yMm: Math.max(...page.map((p) => p.y)) },
  });
  return written.ok ? written : fail(refusal(HPGL_REFUSALS[written.error.kind]));
}
