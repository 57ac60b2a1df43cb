import 'server-only';
import { markBoxes } from '@/core/layout/page-area';
import { MARK_KIND_WORDS } from '@/core/shop/mark-kinds';
import { canonicalJson } from '@/core/target/canonical-json';
import { formatFixed } from '@/core/units/length';
import { DESCRIBED_ANEW, eventWords, SETTING_CHANGED } from '@/core/trust/event-kinds';
import type { Database } from '@/db/client';
import { findEventsOf, findLatestCorrection, findLatestFailures } from '@/db/queries/bench';
import type { findLocked } from '@/db/queries/job';
import { findSettings, ownersOf } from '@/db/queries/settings';
import type { SetupRow } from '@/db/queries/shop';
import type { material } from '@/db/schema/shop';
import { correctionInForce } from './job-correction';
import type { LockedContent } from './job-content';
import { jobFacts } from './job-facts';
import { materialChanges } from './material-changes';
import { settingValueWords } from './words';

type Layout = NonNullable<Awaited<ReturnType<typeof findLocked>>>['layout'];
type Material = typeof material.$inferSelect;

export interface ChangesOrder {
  readonly row: SetupRow;
  readonly layout: Layout;
  readonly content: LockedContent;
  readonly material: Material;
  readonly stamp: (at: Date) => string;
}

/** Settings that stand elsewhere than when the layout was locked. */
async function settingChanges(database: Database, { row, layout }: ChangesOrder): Promise<readonly string[]> {
  const before = layout.settingsSnapshot as Readonly<Record<string, number>>;
  const settings = await findSettings(database, ownersOf(row), { x: 0, y: 0 });
  return settings.flatMap((s) => {
    const was = before[s.id];
    if (was === undefined) return [`${s.displayName} was added to the machine\u2019s settings.`];
    if (was === s.value) return [];
    return [`${s.displayName} was ${settingValueWords(s, was)} and is ${settingValueWords(s, s.value)} now.`];
  });
}

/** What was logged since: moves, blades, updates. A change of a setting is told by its values already. */
async function eventChanges(database: Database, { row, layout, stamp }: ChangesOrder): Promise<readonly string[]> {
  const events = await findEventsOf(database, row);
  return events
    .filter(({ event }) => event.at > layout.at && event.kind !== SETTING_CHANGED)
    .map(({ event, personName }) => {
      const words =
        event.kind === DESCRIBED_ANEW
          ? `The description changed${event.note ? ` (${event.note})` : ''}`
          : eventWords(event.kind);
      return `${words.charAt(0).toUpperCase()}${words.slice(1)}, ${stamp(event.at)}, ${personName}.`;
    });
}

/** Marks that are told differently now. */
function markChanges({ row, content, material: own }: ChangesOrder): readonly string[] {
  const { marks } = jobFacts(row, own).page;
  const { draft, page } = content;
  const boxes = markBoxes({ ...page, marks: { ...marks, insetMm: draft.insetMm } });
  return canonicalJson(boxes) === canonicalJson(content.markBoxes)
    ? []
    : [
        `The marks are told differently now: ${MARK_KIND_WORDS[marks.kind].title.toLowerCase()}, ${formatFixed(marks.sizeMm, 1)} mm.`,
      ];
}

/** Corrections and failed confirmations since the lock. */
async function trustChanges(
  database: Database,
  { row, layout, content, stamp }: ChangesOrder,
): Promise<readonly string[]> {
  const [latest, [newestFailure], inForce] = await Promise.all([
    findLatestCorrection(database, row.setup.id),
    findLatestFailures(database, [row.setup.id]),
    correctionInForce(database, row),
  ]);
  const correction = latest && latest.at > layout.at ? latest : undefined;
  const failure = newestFailure && newestFailure.at > layout.at ? newestFailure : undefined;
  const inPrint = content.fileCorrection;
  const isStale = inPrint !== null && inPrint.join() !== inForce?.sixNumbers.join();
  return [
    ...(correction ? [`The machine was corrected, ${stamp(correction.at)}.`] : []),
    ...(failure ? [`A confirming cut failed, ${stamp(failure.at)}.`] : []),
    ...(isStale ? ['The cut lines in the print file are moved by an older correction than the one in force.'] : []),
  ];
}

/** Everything that changed between the lock and now, in words that are acknowledged one by one. */
export async function changesSince(database: Database, order: ChangesOrder): Promise<readonly string[]> {
  const [settings, events, trust] = await Promise.all([
    settingChanges(database, order),
    eventChanges(database, order),
    trustChanges(database, order),
  ]);
  return [...settings, ...events, ...trust, ...materialChanges(order.layout, order.material), ...markChanges(order)];
}
