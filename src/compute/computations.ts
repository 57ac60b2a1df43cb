import type { z } from 'zod';
import {
  ComputeBorder,
  ComputeCorrectedFile,
  ComputeFit,
  ComputeRoll,
  ComputeSettings,
  ComputeSurvey,
} from '@/contracts/compute';
import { ComputeLayout } from '@/contracts/jobs';
import type { Result } from '@/core/result';
import { computeBorder, computeFit, computeVerdict } from './appraisal';
import { computeCorrectedFile, computeSurvey } from './cut-file';
import { computeLayout } from './layout';
import { computeRoll } from './roll';
import { computeSettings } from './settings';

/** One thing that can be computed without shop or database: by a command line, or under /api/v1. */
export interface Computation {
  readonly words: string;
  readonly input: z.ZodType;
  /** Parses what came in, then computes; a problem of either kind is told by name. */
  readonly run: (raw: unknown) => Answered;
}

/** One thing that was expected otherwise, and where. */
export interface InputIssue {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

/** Plain data, so that a thread can tell it. */
export type Answered =
  | { readonly parsed: false; readonly issues: readonly InputIssue[] }
  | { readonly parsed: true; readonly result: Result<object, { readonly kind: string }> };

const MOST_ISSUES = 50;

const issuesOf = (error: z.ZodError): readonly InputIssue[] =>
  error.issues
    .slice(0, MOST_ISSUES)
    .map(({ path, message }) => ({ path: path.map((p) => (typeof p === 'symbol' ? String(p) : p)), message }));

function computation<S extends z.ZodType>(
  words: string,
  input: S,
  work: (input: z.infer<S>) => Result<object, { readonly kind: string }>,
): Computation {
  return {
    words,
    input,
    run: (raw) => {
      const parsed = input.safeParse(raw);
      return parsed.success
        ? { parsed: true, result: work(parsed.data) }
        : { parsed: false, issues: issuesOf(parsed.error) };
    },
  };
}

export const COMPUTATIONS = {
  fit: computation('Readings to error map, intervals, verdict and border', ComputeFit, computeFit),
  verdict: computation('Readings to verdict: the constant error and the next job', ComputeFit, computeVerdict),
  border: computation('The border or bleed that hides the error of a share of jobs', ComputeBorder, computeBorder),
  settings: computation('Which values to key in for an error map', ComputeSettings, computeSettings),
  roll: computation('Stations along a roll to drift, sections and rows', ComputeRoll, computeRoll),
  layout: computation(
    'Items on pages or pieces of a roll: most copies, what is left over, cut lines',
    ComputeLayout,
    computeLayout,
  ),
  drawing: computation('Colours, pens and layers of a cut file', ComputeSurvey, computeSurvey),
  'corrected-file': computation('A cut file with its cut lines moved', ComputeCorrectedFile, computeCorrectedFile),
} as const satisfies Readonly<Record<string, Computation>>;

export type ComputationName = keyof typeof COMPUTATIONS;
export const COMPUTATION_NAMES = Object.keys(COMPUTATIONS) as readonly ComputationName[];
export const isComputation = (name: string): name is ComputationName => Object.hasOwn(COMPUTATIONS, name);
