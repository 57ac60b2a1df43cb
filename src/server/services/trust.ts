import 'server-only';
import { LRUCache } from 'lru-cache';
import type { School } from '@/core/charts/control-chart';
import { seededRng } from '@/core/math/random';
import { eventWords } from '@/core/trust/event-kinds';
import { forecastNow } from '@/core/trust/forecast';
import { DAY_MS, looksOf } from '@/core/trust/looks';
import { checkDue, FIRST_POLICY, type CheckDue, type Policy } from '@/core/trust/policy';
import { setupState, type SetupState } from '@/core/trust/setup-state';
import { learnWander, shiftSince, type ShiftLook, type ShiftNow, type Wander } from '@/core/trust/wander';
import { normalDraws, type NextJob } from '@/core/verdict/next-job';
import type { Database } from '@/db/client';
import type { SetupRow } from '@/db/queries/shop';
import { now } from '../clock';
import { dailyChart, type DailyChart } from './daily-chart';
import {
  factsOf,
  MOST_CHECKS,
  shiftsOf,
  trustRecords,
  type Confirmed,
  type TrustFacts,
  type TrustRecord,
} from './trust-facts';

export interface KeptPolicy extends Policy {
  readonly id: string | null;
  readonly version: number;
  readonly school: School;
  /** The policy is this material's own, not the one for all. */
  readonly isOwn: boolean;
}

/** One setup and material: how far it can be trusted now. */
export interface MaterialTrust {
  readonly materialId: string;
  readonly materialName: string;
  readonly state: SetupState;
  readonly confirmedAt: Date;
  readonly confirmedBy: string;
  readonly worstMm: number;
  readonly upperMm: number;
  /** Whether what the check proved is within the limit of today. */
  readonly isWithinLimit: boolean;
  /** The next job as it was when it was confirmed, and as it is now. */
  readonly atCheck: Omit<NextJob, 'medianMm'>;
  readonly next: NextJob;
  readonly shift: ShiftNow;
  readonly wander: Wander;
  readonly isMarkSdAssumed: boolean;
  /** What happened since, in words, with the SD that each adds. */
  readonly events: readonly { readonly words: string; readonly sdMm: number }[];
  readonly policy: KeptPolicy;
  readonly due: CheckDue;
  readonly chart: DailyChart;
}

/** A material's own policy, else the setup's, else the figures to begin with. */
export function policyOf({ policies }: Pick<TrustFacts, 'policies'>, materialId: string | null): KeptPolicy {
  const own = policies.find((p) => p.materialId === materialId && materialId !== null);
  const kept = own ?? policies.find((p) => p.materialId === null);
  if (!kept) return { ...FIRST_POLICY, id: null, version: 0, school: 'ewma', isOwn: false };
  return { ...kept, isOwn: own !== undefined };
}

/** Looks since a confirmation, as differences from what it measured; a piece stands somewhere on the sheet, not in its middle. */
function sinceConfirmed(facts: TrustFacts, own: Confirmed): readonly ShiftLook[] {
  const [acrossMm = 0, alongMm = 0, xx = 0, xy = 0, yx = 0, yy = 0] = own.parameters;
  const half = facts.load.corners.reduce(
    (most, p) => ({ x: Math.max(most.x, Math.abs(p.x)), y: Math.max(most.y, Math.abs(p.y)) }),
    { x: 0, y: 0 },
  );
  // A place anywhere on the area: a third of the square at its rim, for each coefficient.
  const place = ((xx ** 2 + yx ** 2) * half.x ** 2 + (xy ** 2 + yy ** 2) * half.y ** 2) / 6;
  const confirmedMs = own.at_ms;
  const shifts = shiftsOf(facts, own.material_id)
    .filter((s) => s.atMs > confirmedMs)
    .map((s) => ({
      ...s,
      acrossMm: s.acrossMm - acrossMm,
      alongMm: s.alongMm - alongMm,
      varianceMm2: s.varianceMm2 + place,
    }));
  const begin = { atMs: confirmedMs, acrossMm: 0, alongMm: 0, varianceMm2: 0 };
  return looksOf([begin, ...shifts], { setAnewMs: [], events: facts.dated }).slice(1);
}

/** How a setup wanders, from its newest looks. */
function wanderOf(facts: TrustFacts): Wander {
  const order = { setAnewMs: facts.setAnewMs, events: facts.dated };
  const recent = { ...facts, checks: facts.checks.slice(0, MOST_CHECKS) };
  return learnWander(facts.confirmed.flatMap((c) => looksOf(shiftsOf(recent, c.material_id), order)));
}

/** So many next jobs are drawn, the same for every setup: the 95 % point comes within 4 % of its value. */
const DRAWN_JOBS = 1000;

const draws = normalDraws(seededRng(DRAWN_JOBS), DRAWN_JOBS);

/** Worst corner of the next job straight after the check, and now. */
function forecasts(facts: TrustFacts, own: Confirmed, shift: ShiftNow) {
  const { corners, covariance: loadCovariance } = facts.load;
  const { parameters: beta, covariance } = own;
  const input = { beta, covariance, loadCovariance, corners, toleranceMm: facts.row.setup.toleranceMm };
  const { next_job: q95Mm, next_out_share: outShare } = own;
  const isKept = outShare !== null;
  return {
    atCheck: isKept ? { q95Mm, outShare } : forecastNow(input, { acrossMm: 0, alongMm: 0, sdMm: 0 }, draws),
    next: forecastNow(input, shift, draws),
  };
}

interface Now {
  readonly wander: Wander;
  readonly atMs: number;
}

/** What happened since a confirmation, and how far the shift may have gone since. */
function sinceOf(facts: TrustFacts, own: Confirmed, { wander, atMs }: Now) {
  const confirmedMs = own.at_ms;
  const begin = confirmedMs / DAY_MS;
  const looks = sinceConfirmed(facts, own);
  const lastDay = looks.at(-1)?.day ?? begin;
  const events = facts.events.filter((e) => e.at_ms > confirmedMs);
  const untold = events.filter((e) => e.at_ms / DAY_MS > lastDay).map((e) => e.kind);
  const fromCheck = looks.map((l) => ({ ...l, day: l.day - begin }));
  const days = atMs / DAY_MS - begin;
  return {
    events,
    days,
    hasLooks: looks.length > 0,
    shift: shiftSince(fromCheck, wander, { day: days, events: untold }),
  };
}

function materialTrust(facts: TrustFacts, own: Confirmed, moment: Now): MaterialTrust {
  const { at_ms: confirmedMs, material_id: materialId } = own;
  const confirmedAt = new Date(confirmedMs);
  const { events, days, hasLooks, shift } = sinceOf(facts, own, moment);
  const { atCheck, next } = forecasts(facts, own, shift);
  const { wander } = moment;
  const policy = policyOf(facts, materialId);
  const costly = facts.worthy.filter((j) => j.materialId === materialId && j.worth >= policy.costlyFrom);
  const due = checkDue(policy, {
    daysSince: days,
    jobsSince: facts.cuts.filter((c) => c.at.getTime() > confirmedMs).length,
    events: events.map((e) => eventWords(e.kind)),
    costlyJobs: costly.map((j) => j.name),
    outNow: next.outShare,
    outAfter: atCheck.outShare,
  });
  const chart = dailyChart(facts, materialId, policy.school);
  const isWithinLimit = own.upper <= facts.row.setup.toleranceMm;
  return {
    ...{ materialId, materialName: own.materialName, confirmedAt, confirmedBy: own.personName },
    ...{ worstMm: own.worst, upperMm: own.upper, isWithinLimit, atCheck, next, shift, wander },
    isMarkSdAssumed: facts.isMarkSdAssumed,
    events: events.map((e) => ({ words: eventWords(e.kind), sdMm: wander.jumpMm(e.kind) })),
    ...{ policy, due, chart },
    state: setupState({
      confirmedAt: confirmedMs,
      correctedAt: facts.corrections.at(-1)?.at_ms ?? null,
      failedAt: facts.failure?.at.getTime() ?? null,
      isDue: due.isDue || chart.signal !== null || !isWithinLimit,
      isSeenOut: hasLooks && next.outShare > 0.5,
    }),
  };
}

/**
 * Doubt grows with time, and is told as it will be at the end of this quarter of an hour (at most 0.001 mm more where a shift
 * wanders as is usual): until then what was worked out stands.
 */
const STEP_MS = 15 * 60_000;

/** One setup: what its record says, and how far it can be trusted with each material that was ever confirmed, newest first. */
export interface SetupTrust {
  readonly facts: TrustFacts;
  readonly materials: readonly MaterialTrust[];
}

interface Worked {
  readonly from: readonly unknown[];
  readonly trust: SetupTrust;
}

/** What was worked out for so many setups is kept by a process, for as long as nothing that it came from changed. */
const worked = new LRUCache<string, Worked>({ max: 250 });

/** Everything that a setup's trust follows from: lists by what they are, what is short by its text. */
function sourcesOf(record: TrustRecord, atMs: number): readonly unknown[] {
  const { confirmed, shifts, corrections, events, checks, olderChecks, ...short } = record;
  return [confirmed, shifts, corrections, events, checks, olderChecks, atMs, JSON.stringify(short)];
}

function setupTrust(record: TrustRecord, atMs: number): SetupTrust {
  const from = sourcesOf(record, atMs);
  const { id } = record.row.setup;
  const known = worked.get(id);
  if (known && from.every((source, i) => source === known.from[i])) return known.trust;
  const facts = factsOf(record);
  const wander = wanderOf(facts);
  const trust = { facts, materials: facts.confirmed.map((own) => materialTrust(facts, own, { wander, atMs })) };
  worked.set(id, { from, trust });
  return trust;
}

/** How far each of many setups can be trusted now, in the order of the rows. */
export async function readTrusts(database: Database, rows: readonly SetupRow[]): Promise<readonly SetupTrust[]> {
  const records = await trustRecords(database, rows);
  const atMs = Math.ceil(now().getTime() / STEP_MS) * STEP_MS;
  return records.map((record) => setupTrust(record, atMs));
}

/** The same of one setup. */
export async function readTrust(database: Database, row: SetupRow): Promise<readonly MaterialTrust[]> {
  return (await readTrusts(database, [row]))[0]?.materials ?? [];
}
