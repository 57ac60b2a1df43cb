import type { ErrorBudget } from '@/core/budget/error-budget';
import type { JobEdge } from '@/core/layout/job-draft';
import { formatSize, type UnitSystem } from '@/core/units/length';
import type { EdgeAnswer } from '@/workers/layout.client';

/** A share in words that an operator uses: 4 %, or one in so many where it is small. */
export function shareWords(share: number): string {
  if (share <= 0) return 'none';
  if (share < 0.001) return 'fewer than 1 in 1000';
  if (share < 0.01) return `about 1 in ${Math.round(1 / share)}`;
  return `about ${Math.round(share * 100)} %`;
}

/** "This job's 1.0 mm border will show the error on about 4 % of pieces." */
export function edgeSentence(kind: JobEdge['kind'], edgeMm: number, answer: EdgeAnswer, system: UnitSystem): string {
  const what =
    kind === 'none' || edgeMm === 0 ? 'edge, without border or bleed,' : `${formatSize(edgeMm, system)} ${kind}`;
  if (answer.pieceShare === 0)
    return `This job\u2019s ${what} hides the error on every piece of the jobs that were simulated.`;
  return `This job\u2019s ${what} will show the error on ${shareWords(answer.pieceShare)} of pieces; ${shareWords(answer.jobShare)} of jobs have at least one.`;
}

/** What would be enough, and whether this is. */
export function neededSentence(edgeMm: number, answer: EdgeAnswer, yieldShare: number, system: UnitSystem): string {
  const share = `${Number((yieldShare * 100).toFixed(1))} %`;
  const needed = formatSize(Math.ceil(answer.neededMm * 100) / 100, system);
  return edgeMm >= answer.neededMm
    ? `${needed} would be enough for ${share} of jobs: this is.`
    : `For ${share} of jobs with nothing to be seen it takes ${needed}.`;
}

const SOURCE_WORDS = {
  constant: 'how well the machine\u2019s constant error is known',
  load: 'reading the marks of one load',
  growth: 'the material\u2019s growth between print and cut',
} as const;

/** The budget line by line, in mm that may be worked out by hand. */
export function budgetLines(budget: ErrorBudget, budgetMm: number): readonly string[] {
  const mm = (value: number): string => value.toFixed(3);
  return [
    `worst place: ${budget.place.x.toFixed(0)} mm across and ${budget.place.y.toFixed(0)} mm along from the page\u2019s middle`,
    `the error to be expected there: ${mm(budget.meanMm)}`,
    ...budget.lines.map(
      (l) => `${SOURCE_WORDS[l.source]}: ${mm(l.sdMm)} (${Math.round(l.share * 100)} % of the squares)`,
    ),
    `root of the sum of their squares: ${mm(budget.combinedSdMm)}`,
    `edge that hides it at that place for the wanted share of jobs: ${mm(budgetMm)}`,
  ];
}
