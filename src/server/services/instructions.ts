import 'server-only';
import type { Family } from '@/core/shop/words';
import type { FileKind } from './files';
import type { Preflight } from '@/core/shop/preflight';
import { cautionsFor } from './cautions';
import { preflightFor } from './preflight';
import { doneSets, planCut, type CalibrationRecord, type CutPlan } from './record';
import { trialLoading } from './which-way';
import { cutStepsFor, printStepsFor } from './route-steps';

export interface FileOffer {
  readonly kind: FileKind;
  readonly words: string;
  readonly isMain: boolean;
}

export interface Instructions {
  readonly files: readonly FileOffer[];
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
  /** To look over first. */
  readonly preflight: Preflight;
}

const main = (kind: FileKind, words: string): FileOffer => ({ kind, words, isMain: true });
const also = (kind: FileKind, words: string): FileOffer => ({ kind, words, isMain: false });

/** Files by which the sheet is printed, the likeliest first. */
function frontFiles(record: CalibrationRecord): readonly FileOffer[] {
  switch (record.calibration.route) {
    case 'A':
      return drawingFiles(record, 'Drawing with print and cuts');
    case 'B':
      return [main('picture', 'Picture of the sheet (PNG)')];
    case 'E':
      return [main('picture', 'Picture to print (PNG)')];
    case 'C':
      return [main('queue-pdf', 'Sheet for the print queue (PDF)')];
    case 'D':
      return [main('print-pdf', 'Print file (PDF)'), also('print-svg', 'The same as SVG')];
  }
}

const isTwoFaced = (record: CalibrationRecord): boolean => record.calibration.kind === 'two_faces';

const printFiles = (record: CalibrationRecord): readonly FileOffer[] =>
  isTwoFaced(record) ? [...frontFiles(record), main('back-pdf', 'Back of the sheet (PDF)')] : frontFiles(record);

/** The drawing in every form that the program opens: SVG first, else DXF lines over a picture, PDF beside them. */
function drawingFiles(record: CalibrationRecord, words: string): readonly FileOffer[] {
  const opens = record.setupRow.program?.opens ?? ['svg'];
  const offers = [
    ...(opens.includes('svg') ? [also('drawing', `${words} (SVG)`)] : []),
    ...(opens.includes('pdf') ? [also('drawing-pdf', `${words} (PDF)`)] : []),
    ...(opens.includes('dxf')
      ? [also('drawing-dxf', 'Cut lines (DXF, in mm)'), also('picture', 'Picture to lay under them (PNG)')]
      : []),
  ];
  const all = offers.length > 0 ? offers : [also('drawing', `${words} (SVG)`)];
  return all.map((offer, i) => ({ ...offer, isMain: i === 0 }));
}

function cutFiles(record: CalibrationRecord, plan: CutPlan): readonly FileOffer[] {
  const isMoved = plan.fileCorrection !== null || plan.fileShift.x !== 0 || plan.fileShift.y !== 0;
  switch (record.calibration.route) {
    case 'A':
      return isMoved ? drawingFiles(record, `Drawing with cut ${plan.setNo} moved`) : [];
    case 'B':
    case 'E':
      return [];
    case 'C':
      return isMoved || plan.setNo === 2 ? [main('queue-pdf', `Cut ${plan.setNo} for the queue (PDF)`)] : [];
    case 'D': {
      const { fileFormat } = record.setupRow.cutter;
      const kinds = [
        ['hpgl', 'cut-hpgl', 'HPGL'],
        ['svg', 'cut-svg', 'SVG'],
        ['dxf', 'cut-dxf', 'DXF, in mm'],
      ] as const;
      return kinds
        .map(([format, kind, name]) => ({
          kind,
          words: `Cut ${plan.setNo} as ${name}`,
          isMain: format === (fileFormat === 'none' ? 'svg' : fileFormat),
        }))
        .sort((a, b) => Number(b.isMain) - Number(a.isMain));
    }
  }
}

/** How the check sheet is printed with this setup's program and printer, one thing at a time. */
export function printInstructions(record: CalibrationRecord): Instructions {
  return {
    files: printFiles(record),
    steps: printStepsFor(record),
    cautions: cautionsFor(family(record), 'print'),
    preflight: preflightFor(record, 'print'),
  };
}

/**
 * How the next set is cut.
 * @param isTrial with a changed value, to learn which way + goes; in a which-way test its second cut is.
 */
export function cutInstructions(
  record: CalibrationRecord,
  isTrial = planCut(record, true).purpose === 'which_way',
): Instructions & { readonly setNo: number; readonly isConfirm: boolean } {
  const plan = planCut(record, true);
  const isConfirm = plan.purpose === 'confirm' || plan.purpose === 'settings_check';
  const files = cutFiles(record, plan);
  const trial = isTrial ? trialLoading(record) : null;
  return {
    setNo: plan.setNo,
    isConfirm,
    files,
    steps: cutStepsFor(record, {
      plan,
      isConfirm,
      isAgain: doneSets(record).length > 0,
      isMoved: files.length > 0,
      trial,
    }),
    cautions: cautionsFor(family(record), 'cut'),
    preflight: trial === 'same-load' ? NOTHING_TO_LOOK_AT : preflightFor(record, 'cut'),
  };
}

/** The sheet lies in the machine as it did a minute ago. */
const NOTHING_TO_LOOK_AT: Preflight = { looks: [], warnings: [] };

const family = (record: CalibrationRecord): Family => record.setupRow.setup.family;
