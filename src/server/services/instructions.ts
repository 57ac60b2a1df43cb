import 'server-only';
import { planCut, type CalibrationRecord, type CutPlan } from './record';
import type { FileKind } from './files';

export interface FileOffer {
  readonly kind: FileKind;
  readonly words: string;
  readonly isMain: boolean;
}

export interface Instructions {
  readonly files: readonly FileOffer[];
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
}

/** How the check sheet is printed with this setup's program and printer, one thing at a time. */
export function printInstructions(record: CalibrationRecord): Instructions {
  const { block, code, setupRow } = record;
  const size = `W ${block.widthMm} and H ${block.lengthMm} mm`;
  if (record.calibration.route === 'A') {
    const { program } = setupRow;
    const name = program?.name ?? 'your program';
    return {
      files: [{ kind: 'drawing', words: 'Drawing with print and both cuts (SVG)', isMain: true }],
      steps: [
        `In ${name}, make a page the size of the sheet (${block.name}) and switch its registration marks on, with the inset you use for work.`,
        `Import the drawing. Its size must read ${size}, as printed on its border. If it reads anything else, type ${size}.`,
        'Centre it on the page and group it, so that print and cut lines cannot come apart.',
        `Save it as "${code}".`,
        `Set the lines of layer "cut 1" to cut; layer "cut 2" and all else to no cut.`,
        `Print from ${name} at actual size (100 %), ${setupRow.printMode.name}.`,
      ],
      cautions: ['Let the print dry before it goes into the cutter.'],
    };
  }
  return {
    files: [
      { kind: 'print-pdf', words: 'Print file (PDF)', isMain: true },
      { kind: 'print-svg', words: 'The same as SVG', isMain: false },
    ],
    steps: [
      `Open the PDF and print it on ${block.name}, ${setupRow.printMode.name}, at actual size: no fit to page, no shrink, 100 %.`,
      'Its four squares are the registration marks. They must be whole.',
      `Write nothing on it: its code ${code} and spot numbers are printed.`,
    ],
    cautions: ['Let the print dry before it goes into the cutter.'],
  };
}

function cutFiles(record: CalibrationRecord, plan: CutPlan): readonly FileOffer[] {
  const isMoved = plan.fileCorrection !== null || plan.fileShift.x !== 0 || plan.fileShift.y !== 0;
  if (record.calibration.route === 'A') {
    return isMoved ? [{ kind: 'drawing', words: `Drawing with cut ${plan.setNo} moved (SVG)`, isMain: true }] : [];
  }
  const isHpgl = record.setupRow.cutter.fileFormat === 'hpgl';
  return [
    { kind: 'cut-hpgl', words: `Cut ${plan.setNo} as HPGL`, isMain: isHpgl },
    { kind: 'cut-svg', words: `Cut ${plan.setNo} as SVG`, isMain: !isHpgl },
  ];
}

const CUT_CAUTIONS = [
  'First run of any cut file: tool up, hand at stop. Watch where it goes, then cut.',
  'Hands off sheet, mat and rollers while marks are read or the machine pauses. Never look into a pointer light.',
  'Follow your machine\u2019s manual and local rules; let trained people change blades.',
];

/** How the next set is cut. */
export function cutInstructions(
  record: CalibrationRecord,
): Instructions & { readonly setNo: number; readonly isConfirm: boolean } {
  const plan = planCut(record, true);
  const isConfirm = plan.purpose !== 'before';
  const files = cutFiles(record, plan);
  const name = record.setupRow.program?.name ?? 'your program';
  const force =
    'Force first: make your machine\u2019s own test cut in the spare. A piece the same size must lift cleanly, liner unharmed.';
  const isProgram = record.calibration.route === 'A';
  const openDrawing = [
    `Open the saved file ${record.code} in ${name}.`,
    ...(files.length > 0
      ? [`Replace its lines of layer "cut ${plan.setNo}" by those of the moved drawing. The print must not move.`]
      : []),
    `Set layer "cut ${plan.setNo}" to cut, all else to no cut.`,
  ];
  const sendPlain = [
    `Send cut ${plan.setNo} to the cutter the way you send plain cut files. An HPGL file cannot start a mark reading: start it at the panel first, the lower left mark is the origin.`,
  ];
  const load = isConfirm
    ? 'Unload the sheet, load it again, and have the marks read afresh. Without that this is only a check of the settings.'
    : 'Load the printed sheet. Note which way its arrow points.';
  return {
    setNo: plan.setNo,
    isConfirm,
    files,
    steps: [
      ...(isConfirm ? [] : [force]),
      load,
      ...(isProgram ? openDrawing : []),
      ...(isProgram ? ['Send it: the marks are read, then it cuts.'] : sendPlain),
    ],
    cautions: CUT_CAUTIONS,
  };
}
