import 'server-only';
import type { StepName } from '@/contracts/steps';
import { eventWords, isAutomatic } from '@/core/trust/event-kinds';
import { setupState, type SetupState } from '@/core/trust/setup-state';
import type { Database } from '@/db/client';
import { findEventsOf, findLatestCorrections, findLatestFailures, findLatestSaved, findOpen } from '@/db/queries/bench';
import { findSetups, type SetupRow } from '@/db/queries/shop';

export interface BenchSetup {
  readonly id: string;
  readonly name: string;
  readonly machines: string;
  readonly note: string;
  readonly isSimulated: boolean;
  readonly state: SetupState;
  readonly toleranceMm: number;
  /** Worst corner of the last confirmation, and the bound it was judged by. */
  readonly worstMm: number | null;
  readonly upperMm: number | null;
  readonly nextJobMm: number | null;
  readonly confirmedAt: Date | null;
  readonly confirmedBy: string | null;
  readonly events: readonly {
    readonly id: string;
    readonly words: string;
    readonly note: string;
    readonly at: Date;
    readonly by: string;
    /** Written by the application itself: nothing to take back. */
    readonly isAutomatic: boolean;
  }[];
  readonly open: { readonly id: string; readonly step: StepName; readonly startedAt: Date } | null;
}

type Saved = Awaited<ReturnType<typeof findLatestSaved>>[number];

interface Facts {
  readonly saved: readonly Saved[];
  readonly corrections: Awaited<ReturnType<typeof findLatestCorrections>>;
  readonly failures: Awaited<ReturnType<typeof findLatestFailures>>;
  readonly open: Awaited<ReturnType<typeof findOpen>>;
}

const timeOf = (at: Date | undefined): number | null => at?.getTime() ?? null;

function measuresOf(
  saved: Saved | undefined,
): Pick<BenchSetup, 'upperMm' | 'nextJobMm' | 'confirmedAt' | 'confirmedBy'> {
  if (!saved) return { upperMm: null, nextJobMm: null, confirmedAt: null, confirmedBy: null };
  const { confirmation, personName } = saved;
  return {
    upperMm: confirmation.upperMm,
    nextJobMm: confirmation.nextJobMm,
    confirmedAt: confirmation.at,
    confirmedBy: personName,
  };
}

const openOf = (work: Facts['open'][number] | undefined): BenchSetup['open'] =>
  work ? { id: work.id, step: work.step, startedAt: work.startedAt } : null;

/** What happened since a setup was last judged, however that went. */
async function eventsSince(
  database: Database,
  row: SetupRow,
  judged: readonly (Date | null)[],
): Promise<BenchSetup['events']> {
  const since = Math.max(0, ...judged.map((at) => at?.getTime() ?? 0));
  const events = await findEventsOf(database, row);
  return events
    .filter((e) => e.event.at.getTime() > since)
    .map(({ event, personName }) => ({
      id: event.id,
      words: eventWords(event.kind),
      note: event.note,
      at: event.at,
      by: personName,
      isAutomatic: isAutomatic(event.kind),
    }));
}

async function benchSetup(database: Database, row: SetupRow, facts: Facts): Promise<BenchSetup> {
  const own = facts.saved.find((s) => s.entry.setupId === row.setup.id);
  const measures = measuresOf(own);
  const { confirmedAt } = measures;
  const failure = facts.failures.find((f) => f.setupId === row.setup.id);
  const events = await eventsSince(database, row, [confirmedAt, failure?.at ?? null]);
  const work = facts.open.find((c) => c.setupId === row.setup.id);
  const worstMm = own?.confirmation.worstMm ?? null;
  const state = setupState({
    confirmedAt: confirmedAt?.getTime() ?? null,
    worstMm,
    toleranceMm: row.setup.toleranceMm,
    eventsSince: events.length,
    correctedAt: timeOf(facts.corrections.find((c) => c.setupId === row.setup.id)?.at),
    failedAt: timeOf(failure?.at),
  });
  return {
    id: row.setup.id,
    name: row.setup.name,
    machines: [row.printer.name, row.cutter.name].join(' + '),
    note: row.setup.note,
    isSimulated: row.isSimulated,
    state,
    toleranceMm: row.setup.toleranceMm,
    ...measures,
    worstMm: state === 'stop' ? (failure?.worstMm ?? null) : worstMm,
    events,
    open: openOf(work),
  };
}

/** The shop at a glance: every setup with its state, what happened since, and the work in progress. */
export async function readBench(database: Database, shopId: string): Promise<readonly BenchSetup[]> {
  const [rows, saved, corrections, failures, open] = await Promise.all([
    findSetups(database, shopId),
    findLatestSaved(database),
    findLatestCorrections(database),
    findLatestFailures(database),
    findOpen(database),
  ]);
  return Promise.all(rows.map((row) => benchSetup(database, row, { saved, corrections, failures, open })));
}
