import 'server-only';
import { Draft } from '@/contracts/jobs';
import type { JobDraft } from '@/core/layout/job-draft';
import { jobSentence } from '@/core/layout/job-sentence';
import type { Database } from '@/db/client';
import {
  findArtNames,
  findJob,
  findLocked,
  findLockedFileNames,
  findOpenJobs,
  findPastJobs,
  findPrint,
  findReleases,
  findResults,
  type JobLineRow,
  type JobRow,
} from '@/db/queries/job';
import { findMaterials, findSetup, findSetups, type SetupRow } from '@/db/queries/shop';
import { now } from '../clock';
import { setupError, type KnownError } from './job-error';
import { jobFacts, type JobFacts } from './job-facts';
import type { LockedContent } from './job-content';

const HOUR_MS = 3_600_000;
/** No job has a number as large: the newest are before it. */
const MAX_NUMBER = 2 ** 31 - 1;

const weekday = (at: Date, timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', { weekday: 'long', timeZone }).format(at);

interface PrintFacts {
  readonly printedAt: Date;
  readonly dryAt: Date | null;
  readonly sheets: number;
}

interface SentenceOrder {
  readonly job: Pick<JobRow, 'number' | 'name' | 'state'>;
  readonly form: JobDraft['form'];
  readonly print: PrintFacts | null;
  readonly facts: Pick<JobFacts, 'page' | 'hasOwnMarks'>;
  readonly leadingMark: string;
  readonly timeZone: string;
}

function sentenceOf({ job, form, print, facts, leadingMark, timeZone }: SentenceOrder): string {
  const at = now();
  const hours = (from: Date): number => (at.getTime() - from.getTime()) / HOUR_MS;
  return jobSentence({
    name: `${job.name} (job ${job.number})`,
    state: job.state,
    printedHoursAgo: print ? hours(print.printedAt) : null,
    dryInHours: print?.dryAt ? Math.max(0, -hours(print.dryAt)) : null,
    sheets: print?.sheets ?? 1,
    form,
    markKind: facts.page.marks.kind,
    leadingMark: facts.hasOwnMarks ? '' : leadingMark,
    printedOn: print ? weekday(print.printedAt, timeZone) : null,
  });
}

export const leadingMarkOf = (row: SetupRow): string =>
  row.programScheme?.leadingMark ?? row.cutterScheme?.leadingMark ?? '';

export interface JobLine {
  readonly id: string;
  readonly number: number;
  readonly name: string;
  readonly state: JobRow['state'];
  readonly setupName: string;
  readonly materialName: string;
  readonly sentence: string;
  readonly printedAt: Date | null;
  readonly dryAt: Date | null;
  readonly startedAt: Date;
  readonly archivedReason: string | null;
  readonly result: { readonly good: number; readonly spoiled: number; readonly spoiledCost: number } | null;
}

/** Some of the jobs that are done with, and where the earlier ones begin. */
export interface PastLines {
  readonly lines: readonly JobLine[];
  /** Number before which more of them stand; null where these are the last. */
  readonly earlier: number | null;
}

export interface JobLists {
  /** Being laid out, locked, or waiting: all of them, newest first. */
  readonly open: readonly JobLine[];
  readonly cut: PastLines;
  readonly archived: PastLines;
}

/** So many jobs that are done with are shown at once. */
const PAST_LINES = 20;

export interface JobsAsked {
  readonly shopId: string;
  readonly timeZone: string;
  /** Those before this number; absent: the newest. */
  readonly cutBefore?: number;
  readonly archivedBefore?: number;
}

/** A shop's jobs as lines of lists. */
export async function readJobs(database: Database, asked: JobsAsked): Promise<JobLists> {
  const { shopId, timeZone, cutBefore = MAX_NUMBER, archivedBefore = MAX_NUMBER } = asked;
  const most = PAST_LINES + 1;
  const [rows, materials, open, cut, archived] = await Promise.all([
    findSetups(database, shopId),
    findMaterials(database, shopId),
    findOpenJobs(database, shopId),
    findPastJobs(database, shopId, { state: 'cut', before: cutBefore, most }),
    findPastJobs(database, shopId, { state: 'archived', before: archivedBefore, most }),
  ]);
  const lineOf = ({ print, result, setupId, materialId, form, ...job }: JobLineRow): readonly JobLine[] => {
    const row = rows.find((r) => r.setup.id === setupId);
    const own = materials.find((m) => m.id === materialId);
    if (!row || !own) return [];
    const order = { job, form, print, facts: jobFacts(row, own), leadingMark: leadingMarkOf(row), timeZone };
    return [
      {
        ...job,
        ...{ setupName: row.setup.name, materialName: own.name, sentence: sentenceOf(order) },
        ...{ printedAt: print?.printedAt ?? null, dryAt: print?.dryAt ?? null },
        result: result && { good: result.good, spoiled: result.spoiled, spoiledCost: result.spoiledCost },
      },
    ];
  };
  const past = (found: readonly JobLineRow[]): PastLines => {
    const shown = found.slice(0, PAST_LINES);
    return { lines: shown.flatMap(lineOf), earlier: found.length > PAST_LINES ? (shown.at(-1)?.number ?? null) : null };
  };
  return { open: open.flatMap(lineOf), cut: past(cut), archived: past(archived) };
}

export interface JobView {
  readonly job: JobRow;
  readonly row: SetupRow;
  readonly material: NonNullable<Awaited<ReturnType<typeof findJob>>>['material'];
  readonly materials: Awaited<ReturnType<typeof findMaterials>>;
  readonly facts: JobFacts;
  readonly draft: JobDraft;
  readonly art: Awaited<ReturnType<typeof findArtNames>>;
  readonly error: KnownError | null;
  readonly sentence: string;
  readonly locked: {
    readonly at: Date;
    readonly by: string;
    readonly hash: string;
    readonly warnings: readonly string[];
    readonly ownFileName: string | null;
    readonly content: LockedContent;
    readonly files: readonly { readonly kind: string; readonly name: string; readonly hash: string }[];
  } | null;
  readonly print: (PrintFacts & { readonly by: string }) | null;
  readonly releases: Awaited<ReturnType<typeof findReleases>>;
  readonly results: Awaited<ReturnType<typeof findResults>>;
}

async function lockedView(database: Database, jobId: string) {
  const found = await findLocked(database, jobId);
  if (!found) return { locked: null, print: null, releases: [] };
  const { layout, personName } = found;
  const [files, print, releases] = await Promise.all([
    findLockedFileNames(database, layout.id),
    findPrint(database, layout.id),
    findReleases(database, layout.id),
  ]);
  return {
    locked: {
      ...{ at: layout.at, by: personName, warnings: layout.warnings, ownFileName: layout.ownFileName },
      hash: layout.contentSha256.toString('hex'),
      content: layout.content as LockedContent,
      files: files.map((f) => ({ kind: f.kind, name: f.name, hash: f.contentSha256.toString('hex') })),
    },
    print: print ? { ...print.print, by: print.personName } : null,
    releases,
  };
}

/** A job with everything its page shows; null where there is none in this shop. */
export async function readJob(
  database: Database,
  shopId: string,
  id: string,
  timeZone: string,
): Promise<JobView | null> {
  const found = await findJob(database, id);
  if (found?.job.shopId !== shopId) return null;
  const row = await findSetup(database, found.job.setupId);
  if (!row) return null;
  const [materials, art, error, stages, results] = await Promise.all([
    findMaterials(database, shopId),
    findArtNames(database, id),
    setupError(database, row),
    lockedView(database, id),
    findResults(database, id),
  ]);
  const facts = jobFacts(row, found.material);
  const draft = Draft.parse(found.job.draft);
  const { job, material } = found;
  const sentence = sentenceOf({
    job,
    form: draft.form,
    print: stages.print,
    facts,
    leadingMark: leadingMarkOf(row),
    timeZone,
  });
  return { job, row, material, materials, facts, draft, art, error, sentence, ...stages, results };
}
