import 'server-only';
import { wilsonInterval, type Proportion } from '@/core/math/proportion';
import type { Database } from '@/db/client';
import { findAllResults } from '@/db/queries/floor';
import { now } from '../clock';

const DAY_MS = 86_400_000;

export interface SpoiledSum {
  readonly jobs: number;
  readonly good: number;
  readonly spoiled: number;
  readonly cost: number;
  /** Share of pieces that were spoiled; null where no pieces were told. */
  readonly share: Proportion | null;
}
export interface SpoiledGroup extends SpoiledSum {
  readonly words: string;
}

export interface Spoilage {
  readonly all: SpoiledSum;
  /** Printer + cutter and material, the costliest first. */
  readonly groups: readonly SpoiledGroup[];
  /** Each month of the stretch, oldest first, "2026-11"; those without a job as well. */
  readonly months: readonly SpoiledGroup[];
  readonly worst: readonly {
    readonly id: string;
    readonly words: string;
    readonly spoiled: number;
    readonly cost: number;
    readonly note: string;
  }[];
}

type Result = Awaited<ReturnType<typeof findAllResults>>[number];

function sumOf(results: readonly Result[]): SpoiledSum {
  const total = (of: (r: Result) => number): number => results.reduce((sum, r) => sum + of(r), 0);
  const [good, spoiled] = [total((r) => r.good), total((r) => r.spoiled)];
  const share = good + spoiled > 0 ? wilsonInterval(spoiled, good + spoiled) : null;
  return { jobs: results.length, good, spoiled, cost: total((r) => r.spoiledCost), share };
}

function groupBy(results: readonly Result[], of: (r: Result) => string): ReadonlyMap<string, readonly Result[]> {
  const groups = new Map<string, Result[]>();
  for (const r of results) {
    const own = groups.get(of(r));
    if (own) own.push(r);
    else groups.set(of(r), [r]);
  }
  return groups;
}

/** Every month between two moments, as "2026-11". */
function monthsBetween(from: Date, to: Date): readonly string[] {
  const months: string[] = [];
  const at = new Date(Date.UTC(from.getUTCFullYear(), from.getUTCMonth(), 1));
  for (; at <= to; at.setUTCMonth(at.getUTCMonth() + 1)) months.push(at.toISOString().slice(0, 7));
  return months;
}

const MOST_WORST = 10;

/** What was spoiled and what it cost, over the last so many days. A job told twice counts as it was told last. */
export async function readSpoilage(database: Database, shopId: string, days: number): Promise<Spoilage> {
  const to = now();
  const from = new Date(to.getTime() - days * DAY_MS);
  const results = await findAllResults(database, shopId, from);
  const byMonth = groupBy(results, (r) => r.at.toISOString().slice(0, 7));
  return {
    all: sumOf(results),
    groups: [...groupBy(results, (r) => `${r.setupName}, ${r.materialName}`)]
      .map(([words, own]) => ({ words, ...sumOf(own) }))
      .sort((a, b) => b.cost - a.cost || b.spoiled - a.spoiled),
    months: monthsBetween(from, to).map((words) => ({ words, ...sumOf(byMonth.get(words) ?? []) })),
    worst: results
      .filter((r) => r.spoiled > 0 || r.spoiledCost > 0)
      .sort((a, b) => b.spoiledCost - a.spoiledCost || b.spoiled - a.spoiled)
      .slice(0, MOST_WORST)
      .map((r) => ({
        ...{ id: r.jobId, words: `${r.jobName} (job ${r.jobNumber})`, spoiled: r.spoiled, cost: r.spoiledCost },
        note: r.note,
      })),
  };
}
