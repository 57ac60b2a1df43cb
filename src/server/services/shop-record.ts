import 'server-only';
import { RECORD_KINDS, type HistoryQueryInput, type KeepNoteInput, type RecordKind } from '@/contracts/history';
import { DAY_MS } from '@/core/trust/looks';
import { DESCRIBED_ANEW, EVENT_KINDS, eventWords, SETTING_CHANGED } from '@/core/trust/event-kinds';
import { fail, ok, type Result } from '@/core/result';
import type { Database } from '@/db/client';
import { findHistoryEntry } from '@/db/queries/bench';
import {
  findNotes,
  findRecordChecks,
  findRecordEntries,
  findRecordEvents,
  findRecordResults,
  type RecordFilter,
} from '@/db/queries/shop-record';
import { historyNote } from '@/db/schema/correction';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerTo } from './own-shop';

/** One line of a shop's record. */
export interface RecordLine {
  readonly id: string;
  readonly kind: RecordKind;
  readonly at: Date;
  readonly by: string;
  /** What it is of: a setup, or the machine or program that something happened to. */
  readonly thing: string;
  readonly materialName: string | null;
  /** What happened, or how a job came out; empty where the figures say it all. */
  readonly words: string;
  readonly worstMm: number | null;
  readonly upperMm: number | null;
  readonly toleranceMm: number | null;
  /** Where more of it is shown. */
  readonly href: string | null;
  readonly notes: number;
}

export interface RecordPage {
  readonly lines: readonly RecordLine[];
  /** Moment to leaf on from; null at the end. */
  readonly next: Date | null;
}

export const PAGE_LINES = 100;

const NO_FIGURES = { worstMm: null, upperMm: null, toleranceMm: null, notes: 0 } as const;

type Source = (database: Database, filter: RecordFilter) => Promise<readonly RecordLine[]>;

const entries: Source = async (database, filter) =>
  (await findRecordEntries(database, filter)).map(
    ({ entry, confirmation, personName, materialName, setupName, notes }) => ({
      ...{ id: entry.id, at: entry.at, by: personName, thing: setupName, materialName, words: entry.note, notes },
      kind: entry.kind === 'saved' ? 'confirmed' : 'put-back',
      worstMm: confirmation?.worstMm ?? null,
      upperMm: confirmation?.upperMm ?? null,
      toleranceMm: confirmation?.toleranceMm ?? null,
      href: `/history/${entry.id}`,
    }),
  );

/** Kinds of events whose own words hold what is looked for: they are not in the database. */
const kindsWith = (find: string | undefined): readonly string[] =>
  find
    ? [...EVENT_KINDS.map((e) => e.kind), SETTING_CHANGED, DESCRIBED_ANEW].filter((kind) =>
        eventWords(kind).toLowerCase().includes(find.toLowerCase()),
      )
    : [];

const happened: Source = async (database, filter) => {
  if (filter.materialId) return [];
  const rows = await findRecordEvents(database, filter, kindsWith(filter.find));
  return rows.map(({ event, personName, thing }) => ({
    ...{
      ...NO_FIGURES,
      id: event.id,
      kind: 'happened',
      at: event.at,
      by: personName,
      thing,
      materialName: null,
      href: null,
    },
    words: [eventWords(event.kind), event.note].filter(Boolean).join(': '),
  }));
};

const dailyChecks: Source = async (database, filter) =>
  (await findRecordChecks(database, filter)).map(({ check, personName, materialName, setupName }) => ({
    ...{
      ...NO_FIGURES,
      id: check.id,
      kind: 'daily-check',
      at: check.at,
      by: personName,
      thing: setupName,
      materialName,
    },
    words: check.note,
    worstMm: Math.hypot(check.acrossMm, check.alongMm),
    href: `/setups/${check.setupId}/daily?material=${check.materialId}`,
  }));

const results: Source = async (database, filter) =>
  (await findRecordResults(database, filter)).map(({ result, jobName, personName, materialName, setupName }) => ({
    ...{ ...NO_FIGURES, id: result.id, kind: 'result', at: result.at, by: personName, thing: setupName, materialName },
    words: [
      `${jobName}: ${result.good} good, ${result.spoiled} spoiled`,
      ...(result.spoiledCost > 0
        ? [`cost ${result.spoiledCost.toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })}`]
        : []),
      ...(result.note ? [result.note] : []),
    ].join(', '),
    href: `/jobs/${result.jobId}`,
  }));

const SOURCES: Readonly<Record<RecordKind, Source>> = {
  confirmed: entries,
  'put-back': entries,
  happened,
  'daily-check': dailyChecks,
  result: results,
};

function filterOf(shopId: string, query: HistoryQueryInput, most: number): RecordFilter {
  const ends = [
    ...(query.to ? [Date.parse(query.to) + DAY_MS] : []),
    ...(query.before ? [Date.parse(query.before)] : []),
  ];
  return {
    ...{ shopId, setupId: query.setup, materialId: query.material, find: query.find || undefined, most },
    from: query.from ? new Date(query.from) : undefined,
    before: ends.length > 0 ? new Date(Math.min(...ends)) : undefined,
  };
}

/** A shop's record as it is asked for, newest first, a page at a time. */
export async function readRecord(
  database: Database,
  shopId: string,
  query: HistoryQueryInput,
  most = PAGE_LINES,
): Promise<RecordPage> {
  const filter = filterOf(shopId, query, most + 1);
  const kinds = query.kind ? [query.kind] : RECORD_KINDS;
  const sources = [...new Set(kinds.map((kind) => SOURCES[kind]))];
  const found = (await Promise.all(sources.map((source) => source(database, filter))))
    .flat()
    .filter((line) => kinds.includes(line.kind))
    .sort((a, b) => b.at.getTime() - a.at.getTime());
  const over = found[most];
  if (!over) return { lines: found, next: null };
  // Lines of one moment stay together: the next page begins with all of them.
  const whole = found.slice(0, most).filter((line) => line.at > over.at);
  const lines = whole.length > 0 ? whole : found.slice(0, most);
  return { lines, next: lines.at(-1)?.at ?? null };
}

/** Keeps words beside an entry; the entry itself is never changed. */
export async function keepNote(
  database: Database,
  actor: Actor,
  { id, historyEntryId, note }: KeepNoteInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { historyEntryId });
  if (stranger) return fail(stranger);
  const found = await findHistoryEntry(database, historyEntryId);
  if (!found) return fail(refusal('This entry is not there any more.'));
  await database
    .insert(historyNote)
    .values({ id, historyEntryId, note, at: now(), by: actor.personId })
    .onConflictDoNothing();
  return ok(id);
}

export interface Note {
  readonly id: string;
  readonly note: string;
  readonly at: Date;
  readonly by: string;
}

/** Notes beside an entry, oldest first. */
export const readNotes = async (database: Database, historyEntryId: string): Promise<readonly Note[]> =>
  (await findNotes(database, historyEntryId)).map(({ note, personName }) => ({
    ...{ id: note.id, note: note.note, at: note.at, by: personName },
  }));

/** Entries that one entry can be held against: those of its setup first, then the newest of all others. */
export async function readOthers(
  database: Database,
  shopId: string,
  { line }: { readonly line: { readonly id: string; readonly setupName: string } },
): Promise<readonly RecordLine[]> {
  const { lines } = await readRecord(database, shopId, { kind: 'confirmed' });
  const others = lines.filter((l) => l.id !== line.id);
  const isOwn = (l: RecordLine): boolean => l.thing === line.setupName;
  return [...others.filter(isOwn), ...others.filter((l) => !isOwn(l))];
}
