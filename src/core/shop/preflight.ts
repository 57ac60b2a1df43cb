import type { MarkAdvice } from './material-marks';
import { MARK_KIND_WORDS } from './mark-kinds';
import type { MarkScheme } from './marks';
import type { Family, Route } from './words';

/** What is known of the shop at a step, for looking things over before it is too late. */
export interface PreflightFacts {
  readonly family: Family;
  readonly route: Route;
  readonly page: { readonly name: string; readonly widthMm: number };
  readonly block: { readonly widthMm: number; readonly lengthMm: number };
  readonly mode: string;
  readonly isBorderless: boolean;
  /** Marks on the print, and what is wrong with them in words. */
  readonly marks: Pick<MarkScheme, 'kind' | 'insetMm'>;
  readonly leadingMark: string;
  readonly markProblems: readonly string[];
  readonly material: MarkAdvice;
  readonly program: {
    readonly bleedDefaultMm: number;
    readonly largestWidthMm: number | null;
    readonly largestLengthMm: number | null;
    readonly holdsCutData: boolean;
  } | null;
  readonly spareFrontMm: number;
  readonly spareRearMm: number;
  /** Hours until the print is dry; none when it is, or nothing is known of it. */
  readonly dryInHours: number;
}

export interface Preflight {
  /** To be looked at, each answered by yes. */
  readonly looks: readonly string[];
  /** What is known to be wrong already. */
  readonly warnings: readonly string[];
}

const ROLL_FAMILIES: readonly Family[] = ['F2', 'F3', 'F4', 'F5', 'F9'];
const ONE_PASS: readonly Family[] = ['F2', 'F9'];
const MAT_FAMILIES: readonly Family[] = ['F1', 'F1c', 'F7'];
const hasMarks = ({ marks, route }: PreflightFacts): boolean =>
  route !== 'E' && marks.kind !== 'none' && marks.kind !== 'by_hand';

type Look = readonly [when: boolean, words: string];
const chosen = (looks: readonly Look[]): readonly string[] => looks.filter(([when]) => when).map(([, words]) => words);

const mm = (value: number): string => `${Number(value.toFixed(2))} mm`;

function largestProblem({ program, block }: PreflightFacts): readonly string[] {
  if (!program) return [];
  const { largestWidthMm: width, largestLengthMm: length } = program;
  const isTooWide = width !== null && block.widthMm > width;
  const isTooLong = length !== null && block.lengthMm > length;
  if (!isTooWide && !isTooLong) return [];
  return [
    `The drawing is ${block.widthMm} x ${block.lengthMm} mm, and this program takes at most ${width ?? 'any'} x ${length ?? 'any'} mm: choose a smaller sheet.`,
  ];
}

/** Before printing. Common practice, no published source. */
function beforePrint(facts: PreflightFacts): Preflight {
  const { family, route, page, mode, isBorderless, marks, material, program } = facts;
  const isRoll = ROLL_FAMILIES.includes(family);
  const bleedMm = program?.bleedDefaultMm ?? 0;
  const looks = chosen([
    [!isRoll, `The sheet in the tray is ${page.name}, and so is the page in the printer\u2019s own window (${mode}).`],
    [isRoll, `The printer reports a printable width of at least ${mm(page.widthMm)}: its figure, not the roll\u2019s.`],
    [true, '100 % in the program and in the printer\u2019s own window: no fit to page, no shrink.'],
    [!isBorderless, 'Borderless is off: it enlarges the print.'],
    [family === 'F5', 'The preview reads backwards.'],
    [family !== 'F5', 'Mirror is off: the preview reads the right way.'],
    [
      hasMarks(facts) && route !== 'D',
      `Marks are on: ${MARK_KIND_WORDS[marks.kind].title.toLowerCase()}, ${mm(marks.insetMm)} from the edge, the same kind as in the machine.`,
    ],
    [bleedMm > 0, `Bleed is off: this program adds ${mm(bleedMm)} by itself.`],
    [family === 'F6', 'The inset is the same on both pages. Note which edge leaves the printer last.'],
    [isRoll, 'The heaters are warm and the material runs straight.'],
    [true, 'The nozzle test has no gap.'],
  ]);
  const shows = material.verdict === 'will show' || !hasMarks(facts);
  const warnings = [
    ...largestProblem(facts),
    ...(hasMarks(facts) ? facts.markProblems : []),
    ...(shows ? [] : [`Marks ${material.verdict} on this material. ${material.todo.join(' ')}`]),
  ];
  return { looks, warnings };
}

function spareWords({ spareFrontMm, spareRearMm }: PreflightFacts): string {
  const parts = [
    spareFrontMm > 0 ? `${mm(spareFrontMm)} before the first marks` : '',
    spareRearMm > 0 ? `${mm(spareRearMm)} after the last` : '',
  ].filter(Boolean);
  return parts.length > 0
    ? `There is spare material: ${parts.join(', ')}.`
    : 'There is spare material before the first marks and after the last, else the rear sensor stops the cut.';
}

/** Before cutting. Common practice, no published source. */
function beforeCut(facts: PreflightFacts): Preflight {
  const { family, marks, leadingMark, program } = facts;
  const isCutOff = ROLL_FAMILIES.includes(family) && !ONE_PASS.includes(family);
  const looks = chosen([
    [hasMarks(facts), 'Every mark is there, whole and sharp; no cut line was printed.'],
    [
      MAT_FAMILIES.includes(family),
      'The mat is clean and sticky; the sheet lies flat, in its corner, without a wrinkle.',
    ],
    [isCutOff && leadingMark !== '', `This end leads: ${leadingMark}.`],
    [isCutOff, spareWords(facts)],
    [isCutOff, 'Rollers stand in from the edges and outside the marks; the material runs straight before they drop.'],
    [
      hasMarks(facts) && !ONE_PASS.includes(family),
      `The machine is set to read ${MARK_KIND_WORDS[marks.kind].title.toLowerCase()}.`,
    ],
    [hasMarks(facts), 'No lamp, sun or shadow falls on the marks; the eye\u2019s window is clean.'],
    [family === 'F4', 'The laminate is pressed down, without a bubble over a mark.'],
    [family === 'F5', 'Every mark is bare.'],
    [family === 'F6', 'The side with the marks is up.'],
    [family === 'F7', 'Light falls evenly on the mat, and the whole of it is in the picture.'],
    [family === 'F9', 'Stations are counted from the leading edge.'],
    [
      program?.holdsCutData === true,
      'The job\u2019s cut data is still held in the program: nothing of it was deleted.',
    ],
  ]);
  const hours = Math.ceil(facts.dryInHours);
  const warnings = hours > 0 ? [`The print is not dry for another ${hours} h: wait with the cut.`] : [];
  return { looks, warnings };
}

/** What to look over before a step, of what can still be put right there, and what is known to be wrong with it. */
export const preflight = (facts: PreflightFacts, moment: 'print' | 'cut'): Preflight =>
  moment === 'print' ? beforePrint(facts) : beforeCut(facts);
