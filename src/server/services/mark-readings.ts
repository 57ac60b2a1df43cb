import 'server-only';
import { randomUUID } from 'node:crypto';
import type { MarkFactor } from '@/contracts/floor';
import { fisherExact, wilsonInterval, type Proportion } from '@/core/math/proportion';
import { LIGHT_WORDS, type Light } from '@/core/shop/light';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { Database, Session } from '@/db/client';
import { countMarkReadings, findLastLight } from '@/db/queries/floor';
import type { SetupRow } from '@/db/queries/shop';
import { markReading } from '@/db/schema/floor';
import { now } from '../clock';
import type { Actor } from './actor';
import { schemeOf } from './setup-marks';

export interface MarkLook {
  readonly row: SetupRow;
  readonly material: { readonly id: string; readonly finish: string };
  readonly of: { readonly calibrationId: string } | { readonly jobId: string };
  /** Absent: the inset that the setup's marks are told with. */
  readonly insetMm?: number;
  readonly light: Light;
  /** One for each time that the eye looked. */
  readonly outcomes: readonly boolean[];
}

/** Whether an eye looks for this setup's marks: not where they are set by hand, or there are none. */
function hasEye(row: SetupRow): boolean {
  const { kind } = schemeOf(row);
  return kind !== 'by_hand' && kind !== 'none';
}

/** Light that was told last at a setup; null where no eye looks for marks. */
export const lightBefore = async (session: Session, row: SetupRow): Promise<Light | null> =>
  hasEye(row) ? findLastLight(session, row.setup.id) : null;

/** Writes down each time that the eye looked for marks. Marks that are set by hand, and setups without, say nothing. */
export async function keepMarkReadings(session: Session, actor: Actor, look: MarkLook): Promise<void> {
  const { row, material, of, light, outcomes } = look;
  if (!hasEye(row) || outcomes.length === 0) return;
  const { insetMm } = schemeOf(row);
  await session.insert(markReading).values(
    outcomes.map((wasRead) => ({
      ...{ id: randomUUID(), setupId: row.setup.id, materialId: material.id, ...of },
      ...{ finish: material.finish, carrier: row.setup.carrier, light, insetMm: look.insetMm ?? insetMm },
      ...{ wasRead, at: now(), by: actor.personId },
    })),
  );
}

type Counted = Awaited<ReturnType<typeof countMarkReadings>>[number];

interface Counts {
  readonly hits: number;
  readonly trials: number;
}

export interface MarkGroup {
  readonly words: string;
  readonly hits: number;
  readonly tries: number;
  readonly share: Proportion;
  /** better or worse than all the others together, where that is sure; null where it may be chance. */
  readonly against: 'better' | 'worse' | null;
}

const insetWords = (mm: number | null, system: UnitSystem): string =>
  mm === null ? 'not told' : formatLength(mm, system);

function wordsOf(row: Counted, by: MarkFactor | 'all', system: UnitSystem): string {
  const words: Readonly<Record<MarkFactor, string>> = {
    material: row.material,
    finish: row.finish || 'not told',
    carrier: row.carrier || 'none',
    light: LIGHT_WORDS[row.light],
    inset: insetWords(row.insetMm, system),
  };
  return by === 'all' ? Object.values(words).join(', ') : words[by];
}

/** Told apart at 5 %, shared out over as many questions as there are groups. */
const SURE = 0.05;

function againstOthers(group: Counts, all: Counts, groups: number): MarkGroup['against'] {
  const others = { hits: all.hits - group.hits, trials: all.trials - group.trials };
  if (others.trials === 0 || fisherExact(group, others) > SURE / groups) return null;
  return group.hits / group.trials > others.hits / others.trials ? 'better' : 'worse';
}

/** How often marks were read, in groups by what is asked for; the worst first. */
export async function readMarkReadings(
  database: Database,
  shopId: string,
  asked: { readonly setup?: string | undefined; readonly by: MarkFactor | 'all'; readonly system: UnitSystem },
): Promise<readonly MarkGroup[]> {
  const rows = await countMarkReadings(database, shopId, asked.setup);
  const all = { hits: 0, trials: 0 };
  const groups = new Map<string, Counts>();
  for (const row of rows) {
    const words = wordsOf(row, asked.by, asked.system);
    const group = groups.get(words) ?? { hits: 0, trials: 0 };
    groups.set(words, { hits: group.hits + row.hits, trials: group.trials + row.tries });
    all.hits += row.hits;
    all.trials += row.tries;
  }
  return [...groups]
    .map(([words, counts]) => ({
      ...{ words, hits: counts.hits, tries: counts.trials, share: wilsonInterval(counts.hits, counts.trials) },
      against: againstOthers(counts, all, groups.size),
    }))
    .sort((a, b) => a.share.share - b.share.share || b.tries - a.tries);
}
