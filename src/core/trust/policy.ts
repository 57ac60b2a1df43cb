import type { School } from '../charts/control-chart';

/** When a setup is checked again: shops differ, and each way can be chosen. */
export const POLICY_KINDS = ['evidence', 'events', 'days', 'jobs', 'costly'] as const;
export type PolicyKind = (typeof POLICY_KINDS)[number];

export const POLICY_WORDS: Readonly<Record<PolicyKind, string>> = {
  evidence: 'by evidence: when what may be spoiled costs more than a check',
  events: 'once, and after anything that happened',
  days: 'every so many days',
  jobs: 'every so many jobs',
  costly: 'before each costly job',
};

/** Charts that daily checks can be held against, and what each sees best. */
export const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  individuals: 'Individuals: each piece by itself; sees a large jump at once, a walk late',
  ewma: 'Moving average (EWMA): sees small jumps and slow walks; the one to begin with',
  cusum: 'Cumulative sums (CUSUM): sees a small lasting shift soonest',
};

export interface Policy {
  readonly kind: PolicyKind;
  readonly everyDays: number;
  readonly everyJobs: number;
  /** A job worth so much or more is costly. */
  readonly costlyFrom: number;
  /** What a spoiled job loses, and what a check takes, in the shop's own money. */
  readonly spoilCost: number;
  readonly checkCost: number;
  /** Jobs that will be cut before anyone would look again. */
  readonly jobsAhead: number;
}

/** Figures to begin with, to be put right by the shop: a spoiled job loses four times what a check takes. Common practice, no published source. */
export const FIRST_POLICY: Policy = {
  ...{ kind: 'evidence', everyDays: 30, everyJobs: 20, costlyFrom: 100 },
  ...{ spoilCost: 20, checkCost: 5, jobsAhead: 5 },
};

export interface PolicyFacts {
  readonly daysSince: number;
  readonly jobsSince: number;
  /** Events since the last confirmation, in words. */
  readonly events: readonly string[];
  /** Costly jobs that wait, by name. */
  readonly costlyJobs: readonly string[];
  /** Share of next jobs beyond the tolerance: now, and straight after a check that found it in register. */
  readonly outNow: number;
  readonly outAfter: number;
}

/** The sum that decides by evidence, so that it can be shown. */
export interface CheckSum {
  readonly jobs: number;
  readonly outNow: number;
  readonly outAfter: number;
  readonly spoilCost: number;
  readonly checkCost: number;
  /** What a check saves on average before it is paid for: jobs x (out now - out after) x cost of a spoiled one. */
  readonly saved: number;
}

export interface CheckDue {
  readonly isDue: boolean;
  /** Why, in words; where nothing is due, what would make it so. */
  readonly reason: string;
  /** Shown whatever the policy is: it tells what the chosen one costs. */
  readonly sum: CheckSum;
}

/** Saved on average by a check now. Source of the rule: expected cost of the two choices, a risk-neutral shop. */
export function checkSum(policy: Policy, facts: PolicyFacts): CheckSum {
  const { jobsAhead: jobs, spoilCost, checkCost } = policy;
  const { outNow, outAfter } = facts;
  return { jobs, outNow, outAfter, spoilCost, checkCost, saved: jobs * Math.max(0, outNow - outAfter) * spoilCost };
}

const listed = (words: readonly string[]): string => words.join(', ');

interface Answer {
  readonly isDue: boolean;
  readonly due: string;
  readonly notDue: string;
}

const inDays = (days: number): string => `in ${days} ${days === 1 ? 'day' : 'days'}`;

/** What each kind says by itself; anything that happened makes all of them due but the one that weighs it. */
const ANSWERS: Readonly<Record<PolicyKind, (policy: Policy, facts: PolicyFacts, sum: CheckSum) => Answer>> = {
  evidence: (_policy, _facts, { saved, checkCost }) => ({
    isDue: saved > checkCost,
    due: 'a check costs less than what it is likely to save',
    notDue: 'a check costs more than it is likely to save',
  }),
  events: () => ({ isDue: false, due: '', notDue: 'nothing happened since' }),
  days: ({ everyDays }, { daysSince }) => ({
    isDue: daysSince >= everyDays,
    due: `${Math.floor(daysSince)} days since, every ${everyDays} is asked`,
    notDue: inDays(Math.ceil(everyDays - daysSince)),
  }),
  jobs: ({ everyJobs }, { jobsSince }) => ({
    isDue: jobsSince >= everyJobs,
    due: `${jobsSince} jobs since, every ${everyJobs} is asked`,
    notDue: `in ${everyJobs - jobsSince} jobs`,
  }),
  costly: (_policy, { costlyJobs }) => ({
    isDue: costlyJobs.length > 0,
    due: `before ${listed(costlyJobs)}`,
    notDue: 'no costly job waits',
  }),
};

/** Whether a check is due by the shop's own policy, and why. */
export function checkDue(policy: Policy, facts: PolicyFacts): CheckDue {
  const sum = checkSum(policy, facts);
  if (policy.kind !== 'evidence' && facts.events.length > 0) return { isDue: true, reason: listed(facts.events), sum };
  const { isDue, due, notDue } = ANSWERS[policy.kind](policy, facts, sum);
  return { isDue, reason: isDue ? due : notDue, sum };
}

const percent = (share: number): string => `${Math.round(100 * share)} %`;
const money = (amount: number): string => (Number.isInteger(amount) ? String(amount) : amount.toFixed(2));

/** The sum as one line of arithmetic. */
export const sumWords = ({ jobs, outNow, outAfter, spoilCost, checkCost, saved }: CheckSum): string =>
  `${jobs} jobs to come \u00d7 (${percent(outNow)} out now \u2212 ${percent(outAfter)} after a check) \u00d7 ${money(spoilCost)} a spoiled job = ${money(Math.round(100 * saved) / 100)}; a check takes ${money(checkCost)}`;
