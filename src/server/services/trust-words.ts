import 'server-only';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { sumWords } from '@/core/trust/policy';
import type { BenchSetup } from './bench';
import type { DailySignal } from './daily-chart';
import type { MaterialTrust } from './trust';

const percent = (share: number): string => (share < 0.005 ? 'under 1 %' : `${Math.round(100 * share)} %`);

/** What the next job is likely to come to, and how much of it has grown since the check. */
export function nextWords({ next, atCheck, isMarkSdAssumed }: MaterialTrust, system: UnitSystem): string {
  const [nowMm, thenMm] = [formatLength(next.q95Mm, system), formatLength(atCheck.q95Mm, system)];
  const grown = nowMm === thenMm ? 'as straight after the check' : `${thenMm} straight after the check`;
  const assumed = isMarkSdAssumed ? '; the noise of reading marks is assumed' : '';
  return `Next job: within ${nowMm} in 95 of 100 (${grown}); ${percent(next.outShare)} of jobs out${assumed}.`;
}

/** What the doubt since the check is made of. */
export function doubtWords({ wander, shift, events }: MaterialTrust, system: UnitSystem): string {
  const length = (mm: number): string => formatLength(mm, system);
  const rest =
    wander.pairs === 0 ? 'assumed' : `learned from ${wander.pairs} ${wander.pairs === 1 ? 'pair' : 'pairs'} of looks`;
  const jumps = events.map((e) => `${e.words} \u00b1 ${length(e.sdMm)}`);
  return [
    `Since then the shift may have gone by \u00b1 ${length(shift.sdMm)} (one SD): ${length(wander.perRootDayMm * 10)} in a hundred days, ${rest}`,
    ...jumps,
  ].join('; ');
}

/** What a chart's signal says, and what it is not. */
export function signalWords(
  { axis, change, isOfMaterial, isFirst }: DailySignal,
  since: string,
  system: UnitSystem,
): string {
  const size = formatLength(Math.abs(change.size), system);
  const what = {
    jump: `a jump of ${size} ${axis} at ${since}`,
    walk: `a slow walk of ${size} ${axis} since ${since}`,
    'cannot-tell': `a change of about ${size} ${axis}; too few points to tell a jump from a walk`,
  }[change.kind];
  if (isFirst)
    return `Daily checks: ${what}. It may be this load alone: change nothing, load afresh and measure one more piece.`;
  if (isOfMaterial)
    return `Daily checks: ${what}. Another material does not show it: it is this material or its batch, not the machine.`;
  return `Daily checks: ${what}.`;
}

const dueWords = ({ due, policy }: MaterialTrust): string => {
  if (due.isDue) return `Check first: ${due.reason}.`;
  const isCounted = policy.kind === 'days' || policy.kind === 'jobs';
  return isCounted ? `Next check ${due.reason}.` : `No check is due: ${due.reason}.`;
};

const counted = (n: number, one: string, more: string): readonly string[] =>
  n === 0 ? [] : [`${String(n)} ${n === 1 ? one : more}`];

/** What is known of a setup that no cut ever confirmed. */
function measuredWords({ cuts, stations }: BenchSetup['measured']): string {
  const seen = [...counted(cuts, 'cut', 'cuts'), ...counted(stations, 'roll station', 'roll stations')];
  return seen.length === 0 ? 'Nothing measured yet.' : `Measured: ${seen.join(', ')}. No cut has confirmed it yet.`;
}

/** How a setup stands with the material that was confirmed last, a sentence each. @param ago how long ago, in words. */
export function benchSentences(
  { materials, failedMm, toleranceMm, measured }: BenchSetup,
  ago: (at: Date) => string,
  system: UnitSystem,
): readonly string[] {
  const [latest] = materials;
  const length = (mm: number): string => formatLength(mm, system);
  const allowed = `${length(toleranceMm)} allowed`;
  if (failedMm !== null)
    return [`Out by ${length(failedMm)} at the worst corner, ${allowed}. The last confirming cut failed.`];
  if (!latest) return [`${measuredWords(measured)} Limit ${length(toleranceMm)}.`];
  const { confirmedAt, confirmedBy, materialName, worstMm, chart } = latest;
  const confirmed = `Out by ${length(worstMm)} at the worst corner, ${allowed}. Confirmed on ${materialName} ${ago(confirmedAt)} by ${confirmedBy}.`;
  if (latest.state === 'not-confirmed')
    return [confirmed, 'It was set anew since: nothing is confirmed until a cut confirms it.'];
  const signal = chart.signal ? [signalWords(chart.signal, ago(chart.signal.since), system)] : [];
  const due = latest.isWithinLimit
    ? dueWords(latest)
    : `Check first. The limit is ${length(toleranceMm)} now. The last check proved ${length(latest.upperMm)}.`;
  return [confirmed, nextWords(latest, system), ...signal, ...(chart.signal ? [] : [due])];
}

/** What it rests on: the sum of costs, and what the doubt is made of. */
export const reasonsOf = (trust: MaterialTrust, system: UnitSystem): readonly string[] => [
  `${sumWords(trust.due.sum)}.`,
  `${doubtWords(trust, system)}.`,
];

/** Another material of a setup, in one line. */
export const otherWords = ({ state, worstMm, next }: MaterialTrust, ago: string, system: UnitSystem): string =>
  state === 'not-confirmed'
    ? `confirmed ${ago}, set anew since`
    : `out by ${formatLength(worstMm, system)}, confirmed ${ago}; next job within ${formatLength(next.q95Mm, system)}`;
