import type { FigureStyle } from '../target/sheet-definition';
import type { Family, KnowsCutBy, MarksPlacedBy, Opens, Route } from './words';

/** The four taps about a sending program. */
export interface ProgramAnswers {
  readonly opens: readonly Opens[];
  readonly marksPlacedBy: MarksPlacedBy;
  readonly knowsCutBy: KnowsCutBy;
  readonly canCutAgain: boolean;
}

export interface RouteChoice {
  readonly route: Route;
  readonly style: FigureStyle;
  /** Cut sets on one sheet. */
  readonly sets: 1 | 2;
}

/** Families whose knife works from the other side of the print or on a mat under a camera: only lift-off discs can be read. */
const LIFT_OFF_FAMILIES: readonly Family[] = ['F5', 'F7'];
/** Families that print and cut in one pass: a second cut on the same print does not exist. */
const ONE_PASS_FAMILIES: readonly Family[] = ['F2', 'F9'];

function routeOf(program: ProgramAnswers | null, family: Family): Route {
  if (!program) return 'D';
  if (family === 'F7' || program.marksPlacedBy === 'mat') return 'E';
  if (program.knowsCutBy === 'spot_ink') return 'C';
  const opensVectors = program.opens.some((o) => o !== 'png');
  const knowsLines = program.knowsCutBy === 'colour' || program.knowsCutBy === 'layer';
  return opensVectors && knowsLines ? 'A' : 'B';
}

/**
 * How a check sheet gets printed and cut with this program (none: the cutter takes a plain cut file). Only traced figures
 * can be read where the program knows no lines of its own; one set a sheet where it refuses a second cut.
 */
export function decideRoute(program: ProgramAnswers | null, family: Family): RouteChoice {
  const route = routeOf(program, family);
  const isTraced = route === 'B' || route === 'E' || LIFT_OFF_FAMILIES.includes(family);
  const canCutAgain = !isTraced && !ONE_PASS_FAMILIES.includes(family) && (program?.canCutAgain ?? true);
  return { route, style: isTraced ? 'lift-off' : 'wedge', sets: canCutAgain ? 2 : 1 };
}

/** Families that fit what is known of the machines, the likeliest first: the shop picks, this only orders. */
export const FAMILY_WORDS: Readonly<Record<Family, { readonly title: string; readonly words: string }>> = {
  F1: {
    title: 'Sheets, printer and cutter apart',
    words: 'A desktop printer; the cutter reads marks; its program knows the offset.',
  },
  F1c: {
    title: 'Sheets, offset on the cutter\u2019s display',
    words: 'As before, but two numbers are typed on the cutter itself.',
  },
  F2: { title: 'One machine prints and cuts', words: 'A roll in one machine, printed and cut in one pass.' },
  F3: {
    title: 'Roll printer and roll cutter',
    words: 'The piece is cut off, loaded again, four marks or more are read.',
  },
  F4: {
    title: 'Print, laminate, cut',
    words: 'The print is laminated before it is cut; marks are read through the film.',
  },
  F5: { title: 'Printed in reverse on clear film', words: 'Mirrored print, backed, seen through the film.' },
  F6: { title: 'Printed on both sides', words: 'Marks on the front; the back is turned and printed after.' },
  F7: { title: 'Camera instead of marks', words: 'The print lies on a mat and is photographed.' },
  F8: { title: 'Registered by hand', words: 'The tool is driven over a mark by the arrow keys.' },
  F9: { title: 'Long runs of small pieces', words: 'One piece copied many times along the roll.' },
};
