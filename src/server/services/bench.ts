import 'server-only';
import type { StepName } from '@/contracts/steps';
import { eventWords, isAutomatic, SETTING_CHANGED } from '@/core/trust/event-kinds';
import { nextStep, type NextStep } from '@/core/trust/next-step';
import { setupState, type SetupState } from '@/core/trust/setup-state';
import type { Database } from '@/db/client';
import { findMeasured, findOpen } from '@/db/queries/bench';
import { findSetups } from '@/db/queries/shop';
import { readTrusts, type MaterialTrust, type SetupTrust } from './trust';
import type { TrustFacts } from './trust-facts';

export interface BenchSetup {
  readonly id: string;
  readonly name: string;
  readonly machines: string;
  readonly note: string;
  readonly isSimulated: boolean;
  readonly toleranceMm: number;
  /** Of the material that was confirmed last, or of the setup where none ever was. */
  readonly state: SetupState;
  /** Worst corner of a confirming cut that failed since. */
  readonly failedMm: number | null;
  readonly next: NextStep | null;
  /** Materials that were ever confirmed here, the latest first. */
  readonly materials: readonly MaterialTrust[];
  readonly events: readonly {
    readonly id: string;
    readonly words: string;
    readonly note: string;
    readonly at: Date;
    /** Written by the application itself: nothing to take back. */
    readonly isAutomatic: boolean;
  }[];
  /** Of a setup that was never confirmed: cuts and stations of rolls that were measured all the same. */
  readonly measured: { readonly cuts: number; readonly stations: number };
  readonly open: { readonly id: string; readonly step: StepName; readonly startedAt: Date } | null;
}

type Open = Awaited<ReturnType<typeof findOpen>>;
type Measured = Awaited<ReturnType<typeof findMeasured>>;

const openOf = (work: Open[number] | undefined): BenchSetup['open'] =>
  work ? { id: work.id, step: work.step, startedAt: work.startedAt } : null;

/** What happened since a setup was last judged, however that went; newest first. Its own corrections are no events of it. */
function eventsSince({ events, corrections }: TrustFacts, judged: readonly (Date | undefined)[]): TrustFacts['events'] {
  const since = Math.max(0, ...judged.map((at) => at?.getTime() ?? 0));
  const isOwn = (e: TrustFacts['events'][number]): boolean =>
    e.kind === SETTING_CHANGED && corrections.some((c) => c.at_ms === e.at_ms);
  return events.filter((e) => e.at_ms > since && !isOwn(e)).reverse();
}

/** Whether a chart of the latest material signals, and since when. */
function signalOf(latest: MaterialTrust | undefined): 'first' | 'standing' | null {
  const signal = latest?.chart.signal;
  if (!signal) return null;
  return signal.isFirst ? 'first' : 'standing';
}

/** State of a setup of which nothing was ever confirmed. */
const bareState = ({ corrections, failure }: TrustFacts): SetupState =>
  setupState({
    ...{ confirmedAt: null, isDue: false, isSeenOut: false },
    correctedAt: corrections.at(-1)?.at_ms ?? null,
    failedAt: failure?.at.getTime() ?? null,
  });

const NOTHING_MEASURED = { cuts: 0, stations: 0 } as const;

function benchSetup({ facts, materials }: SetupTrust, open: Open, measured: Measured): BenchSetup {
  const { row, failure } = facts;
  const { id, name, note, toleranceMm } = row.setup;
  const [latest] = materials;
  const events = eventsSince(facts, [latest?.confirmedAt, failure?.at]);
  const state = latest?.state ?? bareState(facts);
  return {
    ...{ id, name, note, toleranceMm, state, materials, isSimulated: row.isSimulated },
    machines: [row.printer.name, row.cutter.name].join(' + '),
    failedMm: failure && (!latest || failure.at > latest.confirmedAt) ? failure.worstMm : null,
    next: nextStep({
      ...{
        state,
        hasConfirmation: latest !== undefined,
        isWithinLimit: latest?.isWithinLimit ?? true,
        signal: signalOf(latest),
      },
      eventKinds: events.map((e) => e.kind),
    }),
    events: events.map(({ id: eventId, kind, note: words, at_ms }) => ({
      ...{ id: eventId, words: eventWords(kind), note: words, at: new Date(at_ms) },
      isAutomatic: isAutomatic(kind),
    })),
    measured: measured.get(id) ?? NOTHING_MEASURED,
    open: openOf(open.find((c) => c.setupId === id)),
  };
}

/** The shop at a glance: every setup with its state, what happened since, and the work in progress. */
export async function readBench(database: Database, shopId: string): Promise<readonly BenchSetup[]> {
  const [rows, open] = await Promise.all([findSetups(database, shopId), findOpen(database)]);
  const trusts = await readTrusts(database, rows);
  const bare = trusts.filter((t) => t.materials.length === 0).map((t) => t.facts.row.setup.id);
  const measured = await findMeasured(database, bare);
  return trusts.map((trust) => benchSetup(trust, open, measured));
}
