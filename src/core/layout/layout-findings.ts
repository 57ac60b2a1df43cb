import type { FindingWords } from '../artwork/item-finding';
import { markProblems, type MarkProblem, type MarkScheme } from '../shop/marks';
import type { Family } from '../shop/words';
import type { Box } from '../target/block';
import { blockSize } from './block-size';
import type { JobDraft } from './job-draft';
import type { LaidOut } from './lay-out';
import { isInArea } from './page-area';
import { checkRollers, type Rollers } from './rollers';
import { checkSpare, TEST_CUT_MM } from './spare';

/** What the shop has told that a layout is held against. */
export interface LayoutFacts {
  readonly family: Family;
  /** The page that this print mode is set to. */
  readonly modePage: { readonly name: string; readonly widthMm: number; readonly lengthMm: number };
  readonly isBorderless: boolean;
  /** White edge at the worst side. */
  readonly unprintableMm: number;
  /** Marks that the machine is told to read; null where that is not known. */
  readonly machineMarks: Pick<MarkScheme, 'kind' | 'insetMm'> | null;
  readonly rollers: Rollers | null;
  readonly sensorMm: number;
  /** What the printer can print of the material's width; null where it was not told. */
  readonly printableWidthMm: number | null;
  /** Largest drawing that the program takes; null where there is no bound that is known. */
  readonly largest: { readonly widthMm: number | null; readonly lengthMm: number | null };
}

/** A finding about the whole layout, with where it is to be shown on the page. */
export interface LayoutFinding extends FindingWords {
  readonly key: string;
  readonly boxes: readonly Box[];
}

/** Longest page of one print file. Source: PDF 32000-1:2008, annex C: 14,400 units of 1/72 in. */
export const LONGEST_PAGE_MM = 5080;

const mm = (value: number): string => `${Number(value.toFixed(2))} mm`;
const stop = (key: string, words: string, todo: string, boxes: readonly Box[] = []): LayoutFinding => ({
  severity: 'stop',
  ...{ key, words, todo, boxes },
});
const look = (key: string, words: string, todo: string, boxes: readonly Box[] = []): LayoutFinding => ({
  severity: 'look',
  ...{ key, words, todo, boxes },
});

const MARK_TODO: Readonly<Record<MarkProblem['kind'], string>> = {
  clipped: 'Set the marks farther in.',
  'too-near-edge': 'Set the marks farther in, or try one sheet first.',
  'kinds-differ': 'Look at both before you print.',
  'inset-differs': 'Type the same distance in both.',
};

function markFindings({ page, area }: LaidOut, facts: LayoutFacts): readonly LayoutFinding[] {
  return markProblems(page.marks, facts.unprintableMm, facts.machineMarks).map(({ kind, words }) =>
    (kind === 'clipped' ? stop : look)(kind, words, MARK_TODO[kind], area.marks),
  );
}

function pageFindings(draft: JobDraft, { page }: LaidOut, facts: LayoutFacts): readonly LayoutFinding[] {
  const { modePage, printableWidthMm } = facts;
  const isRoll = draft.form === 'roll';
  const differs =
    Math.abs(draft.page.widthMm - modePage.widthMm) > 0.05 || Math.abs(draft.page.lengthMm - modePage.lengthMm) > 0.05;
  return [
    ...(!isRoll && differs
      ? [
          look(
            'page-differs',
            `The page here is ${mm(draft.page.widthMm)} x ${mm(draft.page.lengthMm)}; this print mode is set to ${modePage.name}, ${mm(modePage.widthMm)} x ${mm(modePage.lengthMm)}.`,
            'Make the page in the printer\u2019s own window the same. Printers centre a page of an odd size as they like: measure the first print by rule.',
          ),
        ]
      : []),
    ...(facts.isBorderless
      ? [
          look(
            'borderless',
            'This print mode is borderless: it enlarges the page a little.',
            'Check it with its own check sheet.',
          ),
        ]
      : []),
    ...(isRoll && printableWidthMm !== null && page.widthMm > printableWidthMm + 0.005
      ? [
          stop(
            'too-wide',
            `The layout is ${mm(page.widthMm)} wide, and the printer reports ${mm(printableWidthMm)} of this roll as printable.`,
            'Type the machine\u2019s figure, not the roll\u2019s width.',
          ),
        ]
      : []),
    ...(page.lengthMm > LONGEST_PAGE_MM
      ? [
          stop(
            'too-long',
            `One piece is ${mm(page.lengthMm)} long; one page of a print file ends at ${LONGEST_PAGE_MM} mm.`,
            'Let one piece be no longer than that.',
          ),
        ]
      : []),
  ];
}

/** A drawing larger than the program that is to open it takes. */
function sizeFindings(
  draft: JobDraft,
  { page, placements }: LaidOut,
  { largest }: LayoutFacts,
): readonly LayoutFinding[] {
  if (draft.laysOut === 'program') return [];
  const block = blockSize(placements, page);
  const isTooLarge = block.widthMm > (largest.widthMm ?? Infinity) || block.lengthMm > (largest.lengthMm ?? Infinity);
  if (!isTooLarge) return [];
  const bounds = `${largest.widthMm ?? 'any'} x ${largest.lengthMm ?? 'any'} mm`;
  return [
    stop(
      'too-large',
      `The drawing would be ${block.widthMm} x ${block.lengthMm} mm, and this program takes at most ${bounds}.`,
      'Choose a smaller page, or make fewer.',
    ),
  ];
}

function itemFindings(draft: JobDraft, { area, placements }: LaidOut): readonly LayoutFinding[] {
  const outside = placements.filter((p) => !isInArea(p.box, area)).map((p) => p.box);
  const isShared =
    draft.laysOut === 'here' && draft.gapMm < 0.05 && draft.edge.kind !== 'bleed' && placements.length > 1;
  return [
    ...(outside.length > 0
      ? [
          stop(
            'outside',
            'Art stands outside the usable area or in the room of a mark: it would not be cut, or would spoil the mark.',
            'Move it in, make it smaller, or set the marks nearer to the edge.',
            outside,
          ),
        ]
      : []),
    ...(isShared
      ? [
          look(
            'shared-lines',
            'Copies stand edge to edge: straight sides that they share are cut twice.',
            'Leave a gap of 1 mm or more, or take it as it is for pieces without straight sides.',
          ),
        ]
      : []),
  ];
}

function spareFindings(draft: JobDraft, facts: LayoutFacts): readonly LayoutFinding[] {
  if (draft.form !== 'roll') return [];
  const found = checkSpare({
    frontMm: draft.spareFrontMm,
    rearMm: draft.spareRearMm,
    sensorMm: facts.sensorMm,
  });
  return found.map(({ kind, missingMm }) =>
    kind === 'no-test-cut'
      ? look(
          kind,
          `A test cut of ${TEST_CUT_MM} mm needs ${mm(missingMm)} more before the first marks.`,
          'Feed more out before you print, so that the test does not run into the picture.',
        )
      : look(
          kind,
          kind === 'no-rear'
            ? 'No spare is left behind the last marks: the rear sensor is bared before they are read, and many machines then stop.'
            : `The rear sensor wants ${mm(missingMm)} more behind the last marks.`,
          'Feed more out after the print, before you cut it off.',
        ),
  );
}

/** Rollers that run on the marks or close by, in words; null where they stay clear. */
export function rollerWords(rollers: Rollers | null, marks: Pick<MarkScheme, 'kind' | 'insetMm'>): string | null {
  const check = rollers && checkRollers(rollers, marks);
  if (!check || check.verdict === 'clear') return null;
  return check.verdict === 'on marks'
    ? `The rollers run ${mm(-check.clearMm)} over the marks: they scuff them, and the eye reads badly.`
    : `The rollers pass ${mm(check.clearMm)} beside the marks.`;
}

function rollerFindings({ page, area }: LaidOut, { rollers }: LayoutFacts): readonly LayoutFinding[] {
  const words = rollerWords(rollers, page.marks);
  return words ? [look('rollers', words, 'Set the rollers farther out, or the marks farther in.', area.marks)] : [];
}

/** Less than this between the insets of both sides is a rounding of inch and centimetre. */
const SAME_INSET_MM = 0.05;

function sideFindings(draft: JobDraft, { family }: LayoutFacts): readonly LayoutFinding[] {
  const { backInsetMm } = draft;
  const found: LayoutFinding[] = [];
  if (family === 'F5' && !draft.isMirrored)
    found.push(
      look(
        'not-mirrored',
        'Work that is seen through its film is printed backwards, and this layout is not mirrored.',
        'Turn mirroring on.',
      ),
    );
  if (family !== 'F5' && draft.isMirrored)
    found.push(
      look('mirrored', 'This layout is mirrored, and the work is not seen through its film.', 'Turn mirroring off.'),
    );
  if (family === 'F6' && backInsetMm !== null && Math.abs(backInsetMm - draft.insetMm) > SAME_INSET_MM)
    found.push(
      look(
        'insets-differ',
        `The front\u2019s inset is ${mm(draft.insetMm)}, the back\u2019s ${mm(backInsetMm)}: front and back would not lie on each other.`,
        'Type the same inset for both pages.',
      ),
    );
  return found;
}

/** Everything about a layout that is to be looked at before it is locked, what stops it first. */
export function layoutFindings(draft: JobDraft, laid: LaidOut, facts: LayoutFacts): readonly LayoutFinding[] {
  const found = [
    ...itemFindings(draft, laid),
    ...markFindings(laid, facts),
    ...pageFindings(draft, laid, facts),
    ...sizeFindings(draft, laid, facts),
    ...spareFindings(draft, facts),
    ...rollerFindings(laid, facts),
    ...sideFindings(draft, facts),
  ];
  return [...found.filter((f) => f.severity === 'stop'), ...found.filter((f) => f.severity === 'look')];
}
