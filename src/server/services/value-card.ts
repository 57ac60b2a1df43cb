import 'server-only';
import type { Database } from '@/db/client';
import { findLatestSaved } from '@/db/queries/bench';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findSetup } from '@/db/queries/shop';
import { fileNamePart } from '@/formats/file-name';
import { writeValueCard } from '../documents/value-card';
import { settingValueWords } from './words';

export interface CardFile {
  readonly name: string;
  readonly body: Buffer;
}

/** The card of a setup: its settings as the record has them now. Null where there is no such setup. */
export async function valueCard(
  database: Database,
  setupId: string,
  stamp: (at: Date) => string,
): Promise<CardFile | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const settings = await findSettings(database, ownersOf(row), { x: 0, y: 0 });
  const saved = await findLatestSaved(database, setupId);
  const confirmed = saved ? `confirmed ${stamp(saved.confirmation.at)} by ${saved.personName}` : 'not confirmed yet';
  const body = await writeValueCard({
    title: row.setup.name,
    subtitle: `${[row.printer.name, row.printMode.name, row.cutter.name].join(', ')}; ${confirmed}`,
    lines: settings.map((s) => ({
      name: s.displayName,
      value: s.kind === 'wizard' ? 'hidden' : settingValueWords(s, s.value),
      note: s.isInProgram ? 'in the program' : '',
    })),
    footer:
      settings.length === 0
        ? 'Nothing can be set on this machine: its cut lines are moved in the file.'
        : 'If a display shows anything else, find out why before you cut. Write the old value down before you change it.',
  });
  return { name: `value-card-${fileNamePart(row.setup.name)}.pdf`, body };
}
