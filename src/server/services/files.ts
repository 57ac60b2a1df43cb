import 'server-only';
import { fail, ok, type Result } from '@/core/result';
import type { Load } from '@/core/geometry/load';
import { writeHpgl } from '@/formats/hpgl/hpgl';
import { writeSvg } from '@/formats/svg/write-svg';
import { writePdf } from '../documents/print-pdf';
import { cutFilePaths, cutPage, oneDrawing, printPage, type CutFile } from '../documents/sheet-drawing';
import { refusal, type Refusal } from './actor';
import { fileMove, withoutFigures } from './cut-moves';
import type { CalibrationRecord, CutPlan } from './record';

export const FILE_KINDS = ['drawing', 'print-pdf', 'print-svg', 'cut-hpgl', 'cut-svg'] as const;
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

function drawingFor(record: CalibrationRecord, order: CutOrder): string {
  const { plan, load } = order;
  const moved: CutFile = { setNo: plan.setNo, move: fileMove(plan, load) };
  const still: CutFile = { setNo: plan.setNo === 1 ? 2 : 1, move: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 } };
  const cuts = [moved, still].sort((a, b) => a.setNo - b.setNo);
  const whole = oneDrawing(record.definition, record.code, []);
  const lines = oneDrawing(withoutFigures(record.definition, plan), record.code, cuts).layers.slice(1);
  return writeSvg({ ...whole, layers: [...whole.layers, ...lines] }, { unitsPerInch: drawingScale(record) });
}

const fileName = (record: CalibrationRecord, what: string, extension: string): string =>
  `check-sheet-${record.code}-${what}.${extension}`;

/** Makes one file of the calibration's check sheet; cut files are for the next cut and the stated load. */
export async function makeFile(
  record: CalibrationRecord,
  kind: FileKind,
  order: CutOrder,
): Promise<Result<MadeFile, Refusal>> {
  const { plan, load } = order;
  const cut: CutFile = { setNo: plan.setNo, move: fileMove(plan, load) };
  const definition = withoutFigures(record.definition, plan);
  const svg = (what: string, body: string): Result<MadeFile, Refusal> =>
    ok({ name: fileName(record, what, 'svg'), mediaType: 'image/svg+xml', body });
  switch (kind) {
    case 'drawing':
      return svg(`drawing-cut-${plan.setNo}`, drawingFor(record, order));
    case 'print-svg':
      return svg('print', writeSvg(printPage(record.definition, record.code), { unitsPerInch: 96 }));
    case 'print-pdf':
      return ok({
        name: fileName(record, 'print', 'pdf'),
        mediaType: 'application/pdf',
        body: await writePdf(printPage(record.definition, record.code)),
      });
    case 'cut-svg':
      return svg(`cut-${plan.setNo}`, writeSvg(cutPage(definition, record.code, cut), { unitsPerInch: 96 }));
    case 'cut-hpgl':
      return hpglFile(record, order, cut);
  }
}

function hpglFile(record: CalibrationRecord, { plan, load }: CutOrder, cut: CutFile): Result<MadeFile, Refusal> {
  const { cutter } = record.setupRow;
  const axes = { across: cutter.fileAcross, along: cutter.fileAlong };
  const written = writeHpgl(cutFilePaths(withoutFigures(record.definition, plan), cut, load, axes));
  if (!written.ok) {
    return fail(
      refusal(
        'Moved this far, some cut lines would lie before the file\u2019s origin, where a cutter cannot follow. Bring the cut nearer with the machine\u2019s offset first.',
      ),
    );
  }
  return ok({
    name: fileName(record, `cut-${plan.setNo}-turned-${load.turnDeg}`, 'hpgl'),
    mediaType: 'application/vnd.hp-hpgl',
    body: written.value,
  });
}
