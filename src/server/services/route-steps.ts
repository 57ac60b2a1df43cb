import 'server-only';
import type { TrialLoading } from '@/core/setting/which-way';
import type { CutLine } from '@/core/shop/cut-lines';
import type { Family } from '@/core/shop/words';
import { LIFT_OFF_RIM_MM } from '@/core/target/lift-off';
import type { CalibrationRecord, CutPlan } from './record';
import { spotInkOf } from './spot-ink';

type Steps = readonly string[];

const programOf = (record: CalibrationRecord): string => record.setupRow.program?.name ?? 'your program';
const sizeOf = ({ block }: CalibrationRecord): string => `W ${block.widthMm} and H ${block.lengthMm} mm`;
const modeOf = ({ setupRow: { printMode } }: CalibrationRecord): string =>
  [printMode.name, printMode.isBorderless ? 'not borderless, whatever it offers' : ''].filter(Boolean).join(', ');

const ONE_PASS =
  'Feed the roll straight. Printing and cutting go in one pass: set tool and force for this material first.';

/** What a family does before it prints, where it differs from a plain sheet. */
function beforePrint({ setupRow: { setup }, block }: CalibrationRecord): Steps {
  const steps: Partial<Record<Family, Steps>> = {
    F2: [ONE_PASS],
    F9: [ONE_PASS, 'Make one piece of this sheet; count stations from the leading edge when you copy it later.'],
    F5: ['Print mirrored, as for your work: the numbers must read right through the film.'],
    F6: [`Print this on the front of a ${block.name} sheet, with the marks; the back is printed after it was turned.`],
  };
  return steps[setup.family] ?? [];
}

/** What is done to the print before it is cut. */
function afterPrint({ setupRow: { setup, cutter } }: CalibrationRecord): Steps {
  const spare = [
    cutter.spareFrontMm > 0 ? `${cutter.spareFrontMm} mm before the first marks` : '',
    cutter.spareRearMm > 0 ? `${cutter.spareRearMm} mm after the last` : '',
  ].filter(Boolean);
  const cutOff = `Cut the piece off with spare material at both ends${spare.length > 0 ? `: ${spare.join(', ')}` : ''}. Note which end leads.`;
  const steps: Partial<Record<Family, Steps>> = {
    F3: [cutOff],
    F8: [cutOff],
    F4: ['Laminate it as you do your work, and one more piece for the confirm.', cutOff],
    F5: ['Tape the marks, lay the backing on, and bare the marks again.', cutOff],
  };
  return steps[setup.family] ?? [];
}

function routePrint(record: CalibrationRecord): Steps {
  const name = programOf(record);
  const { code, block, setupRow } = record;
  const spotInk = spotInkOf(setupRow);
  switch (record.calibration.route) {
    case 'A':
      return movedMarks(record, [
        `In ${name}, make a page the size of the sheet (${block.name}) and switch its registration marks on, with the inset you use for work.`,
        `Import the drawing. Its size must read ${sizeOf(record)}, as printed on its border. If it reads anything else, type ${sizeOf(record)}.`,
        'Centre it on the page and group it, so that print and cut lines cannot come apart.',
        `Save it as "${code}".`,
        record.definition.sets === 2
          ? 'Set the lines of layer "cut 1" to cut; layer "cut 2" and all else to no cut.'
          : 'Set the lines of layer "cut 1" to cut, all else to no cut.',
        `Print from ${name} at actual size (100 %), ${modeOf(record)}.`,
      ]);
    case 'B':
      return [
        `In ${name}, make a page the size of the sheet (${block.name}) with registration marks on. Turn bleed off.`,
        `Place the picture and type its width: ${block.widthMm} mm, proportions kept.`,
        'Trace it. Keep the outer outline of each closed ring alone; delete every other line that the trace found.',
        `Offset those outlines outward by ${LIFT_OFF_RIM_MM} mm and delete the traced ones.`,
        `Group picture and outlines, save it as "${code}", and print at actual size (100 %), ${modeOf(record)}.`,
      ];
    case 'C':
      return movedMarks(record, [
        `Place the PDF in ${name} at 100 %, not turned. Its cut lines are in the spot ink "${spotInk}", in a layer of their own.`,
        'See that the queue names that ink as a cut line and prints none of it.',
        record.definition.sets === 1
          ? 'Choose print and cut in one pass.'
          : 'Have it add its marks, and choose print only; leave spare material at both ends.',
        `Print it, ${modeOf(record)}.`,
      ]);
    case 'D':
      return [
        `Open the PDF and print it on ${block.name}, ${modeOf(record)}, at actual size: no fit to page, no shrink, 100 %.`,
        record.markMoves
          ? 'Its four squares are the registration marks. They stand up to 0.9 mm from their places, on purpose. They must be whole.'
          : 'Its four squares are the registration marks. They must be whole.',
        `Write nothing on it: its code ${code} and spot numbers are printed.`,
      ];
    case 'E':
      return [
        `Print the picture at ${sizeOf(record)}, 100 %, ${modeOf(record)}.`,
        'Lay it flat on the mat that carries the marks, square to it, without a shadow over it.',
      ];
  }
}

/** Before printing: a second copy in which the marks alone are moved. Printed is the copy, cut will be the first file. */
function movedMarks(record: CalibrationRecord, steps: Steps): Steps {
  const { marksInAcrossMm: across, marksInAlongMm: along } = record.calibration;
  if (across === null || along === null) return steps;
  const moved = [across > 0 ? `${across} mm further in across` : '', along > 0 ? `${along} mm further in along` : ''];
  return [
    ...steps.slice(0, -1),
    `Save a second copy as "${record.code} marks". In this copy alone set the marks ${moved.filter(Boolean).join(' and ')}. Drawing and cut lines stay where they are.`,
    ...steps
      .slice(-1)
      .map((print) => `From the copy with the moved marks: ${print.charAt(0).toLowerCase()}${print.slice(1)}`),
  ];
}

const BACK: Steps = [
  'Turn the sheet over as you do in your work, about its long edge, the same end leading: "BACK" must come out on the end that the arrow does not point to.',
  'Print the back file on the other face, 100 %, without marks. Not through a printer any more once it is cut.',
];

/** How the check sheet is printed, one thing at a time. */
export const printStepsFor = (record: CalibrationRecord): Steps => [
  ...beforePrint(record),
  ...routePrint(record),
  ...(record.calibration.kind === 'two_faces' ? BACK : []),
  ...afterPrint(record),
];

interface CutSteps {
  readonly plan: CutPlan;
  readonly isConfirm: boolean;
  /** Something was cut in this calibration already: this is another load. */
  readonly isAgain: boolean;
  /** A file other than the saved one is to be cut. */
  readonly isMoved: boolean;
  /** Of a cut with a changed value: how the sheet comes to it; else null. */
  readonly trial: TrialLoading | null;
}

const SAME_LOAD =
  'Leave the sheet where it lies, and choose "go on" or the same origin again at the machine: no unloading, no new mark reading.';

/** What is made sure of before anything is cut or drawn. */
const FIRST_STROKE: Readonly<Record<CutLine, string>> = {
  weeded:
    'Force first: make your machine\u2019s own test cut in the spare. A piece the same size must lift cleanly, liner unharmed.',
  rubbed:
    'Force first: make your machine\u2019s own test cut in the spare. The slit must go through the face, and mat or liner stay unharmed.',
  pen: 'Put the pen in place of the knife as your machine\u2019s manual says, so that it touches when it is down and clears when it is up, and draw a stroke in the spare. Let lines keep the drawing\u2019s own order where the program offers it.',
};

function loadStep(record: CalibrationRecord, isConfirm: boolean): string {
  const { family } = record.setupRow.setup;
  if (family === 'F2' || family === 'F9')
    return isConfirm
      ? 'Send the sheet as a new job: the machine registers each job by itself. Leave the roll in.'
      : 'It is cut as soon as it is printed: do not touch the roll between.';
  if (family === 'F7')
    return isConfirm
      ? 'Lay the second print on the mat, photograph it anew and load the mat again.'
      : 'Photograph the mat from straight above, then load it.';
  return isConfirm
    ? 'Unload the sheet, load it again, and have the marks read afresh. Without that this is only a check of the settings.'
    : 'Load the printed sheet. Note which way its arrow points.';
}

function sendDrawing(record: CalibrationRecord, { plan, isMoved }: Pick<CutSteps, 'plan' | 'isMoved'>): Steps {
  const name = programOf(record);
  const { code } = record;
  return [
    record.markMoves
      ? `Open the first file, ${code}, in ${name}: not the copy with the moved marks.`
      : `Open the saved file ${code} in ${name}.`,
    ...(isMoved
      ? [`Replace its lines of layer "cut ${plan.setNo}" by those of the moved drawing. The print must not move.`]
      : []),
    `Set layer "cut ${plan.setNo}" to cut, all else to no cut.`,
    'Send it: the marks are read, then it cuts.',
  ];
}

/** The second cut of a which-way test: the same job at the same place, nothing found again. */
const sendInSameLoad = ({ plan }: CutSteps): Steps => [
  `Send cut ${plan.setNo} alone, at the place where the machine stands now: if the machine or the program offers to read the marks, decline.`,
];

function sendSteps(record: CalibrationRecord, { plan, isMoved }: CutSteps): Steps {
  const name = programOf(record);
  const { code } = record;
  switch (record.calibration.route) {
    case 'A':
      return sendDrawing(record, { plan, isMoved });
    case 'B':
      return [`Open the saved file ${code} in ${name} and send it: the marks are read, then it cuts round each ring.`];
    case 'C':
      return record.definition.sets === 1
        ? ['The queue cuts it in the same pass.']
        : [
            isMoved
              ? `Place the PDF for cut ${plan.setNo} exactly as the first one, and choose cut only.`
              : `Choose the same job in the queue${record.markMoves ? ', as it was before the marks were moved' : ''}, and cut only.`,
          ];
    case 'D':
      return record.setupRow.setup.family === 'F8'
        ? [
            'Drive the tool over the middle of the lower left square, then of the upper left one, as the panel asks. Over one mark alone it cannot correct a turn.',
            `Send cut ${plan.setNo}. An HPGL file cannot start a mark reading: start it at the panel first.`,
          ]
        : [
            `Send cut ${plan.setNo} to the cutter the way you send plain cut files. An HPGL file cannot start a mark reading: start it at the panel first, the lower left mark is the origin.`,
          ];
    case 'E':
      return [
        `In ${name}, open the photo, trace the rings, keep each ring\u2019s outer outline alone and offset it outward by ${LIFT_OFF_RIM_MM} mm.`,
        'Send it.',
      ];
  }
}

function liftStep(record: CalibrationRecord): Steps {
  if (record.definition.liftOffs.length === 0) return [];
  return ['Lift the discs and lay them on dark card, their numbers upright.'];
}

const PRINT_AGAIN = 'Print this sheet exactly as the one before.';
const LOAD_ALIKE = 'Load it exactly as the one before, and have its marks read.';
const LOAD_AGAIN = 'Load the same sheet again, exactly as before, and have its marks read.';

/** How the sheet comes into the machine. A sheet cut with a changed value lies as the one that it is compared with. */
function loadStepFor(record: CalibrationRecord, { isConfirm, isAgain, trial }: CutSteps): string {
  if (trial === 'same-load') return SAME_LOAD;
  if (trial === 'reload') return LOAD_AGAIN;
  // Where print and cut are one pass, nothing is loaded.
  const isOnePass = record.definition.sets === 1 && record.calibration.route === 'C';
  return trial === 'another-sheet' && !isOnePass ? LOAD_ALIKE : loadStep(record, isConfirm || isAgain);
}

/** How the next set is cut, one thing at a time. */
export const cutStepsFor = (record: CalibrationRecord, cut: CutSteps): Steps => [
  ...(cut.plan.purpose === 'before' && !cut.isAgain ? [FIRST_STROKE[record.calibration.cutLine]] : []),
  ...(cut.trial === 'another-sheet' ? [PRINT_AGAIN] : []),
  loadStepFor(record, cut),
  ...(cut.trial === 'same-load' ? sendInSameLoad(cut) : sendSteps(record, cut)),
  ...liftStep(record),
];
