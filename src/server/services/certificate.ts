import 'server-only';
import { createHash } from 'node:crypto';
import { count, eq } from 'drizzle-orm';
import { PART_NAMES, partValueWords } from '@/core/verdict/part-words';
import { PARTS, partsOf } from '@/core/verdict/parts';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { Database } from '@/db/client';
import { findHistoryEntry } from '@/db/queries/bench';
import { findSettings, findSettingValuesAt, ownersOf } from '@/db/queries/settings';
import { findSetup, type SetupRow } from '@/db/queries/shop';
import { fit, fitReading } from '@/db/schema/calibration';
import { fileNamePart } from '@/formats/file-name';
import { writeCertificate, type Certificate } from '../documents/certificate';
import type { CardFile } from './value-card';
import { settingValueWords } from './words';

type Entry = NonNullable<Awaited<ReturnType<typeof findHistoryEntry>>>;
type Judged = Entry & { readonly confirmation: NonNullable<Entry['confirmation']> };

const isJudged = (row: Entry | undefined): row is Judged => row?.confirmation != null;

/** What the machine's display showed when the entry was made. */
async function settingsThen(database: Database, row: SetupRow, at: Date): Promise<Certificate['settings']> {
  const settings = await findSettings(database, ownersOf(row), { x: 0, y: 0 });
  const values = await findSettingValuesAt(
    database,
    settings.map((s) => s.id),
    at,
  );
  return settings.flatMap((s) => {
    const value = values.get(s.id);
    return value === undefined || s.kind === 'wizard' ? [] : [[s.displayName, settingValueWords(s, value)] as const];
  });
}

interface Wording {
  readonly system: UnitSystem;
  readonly stamp: (at: Date) => string;
}

const REMARKS = [
  'The error is that of the cut against the print of the same sheet, in the frame of the sheet\u2019s printed arrow: a length measured with this print. It is not traceable to a national standard of length.',
  'The worst corner is the largest distance between cut and print at the corners of the work area. The bound holds it with 95 % confidence; the next job counts a fresh load and a fresh reading of the marks in as well.',
  'It holds for this printer, program, cutter and material as they stood, and until anything of them changes.',
] as const;

/** The certificate of one confirmation. Null where there is no such entry; what was put back is not confirmed and has none. */
export async function certificateOf(
  database: Database,
  historyEntryId: string,
  { system, stamp }: Wording,
): Promise<CardFile | null> {
  const entry = await findHistoryEntry(database, historyEntryId);
  const row = entry ? await findSetup(database, entry.entry.setupId) : undefined;
  if (!isJudged(entry) || !row) return null;
  const { confirmation } = entry;
  const [found] = await database.select().from(fit).where(eq(fit.id, confirmation.fitId));
  const [used] = await database.select({ n: count() }).from(fitReading).where(eq(fitReading.fitId, confirmation.fitId));
  const parts = found && partsOf(found.parameters, found.covariance);
  if (!parts) return null;
  const length = (mm: number): string => formatLength(mm, system);
  const unsigned = (words: string): string => words.replace(/^\+/, '');
  const content: Omit<Certificate, 'fingerprint'> = {
    title: `Register of print and cut: ${entry.setupName}`,
    verdict: `Out by ${length(confirmation.worstMm)} at the worst corner, below ${length(confirmation.upperMm)} with 95 % confidence; ${length(confirmation.toleranceMm)} allowed: in register.`,
    facts: [
      ['Confirmed', `${stamp(confirmation.at)}, by ${entry.personName}`],
      ['Printer', `${row.printer.name}, ${row.printMode.name}`],
      ...(row.program ? [['Program', row.program.name] as const] : []),
      ['Cutter', `${row.cutter.name}, ${row.setup.tool}`],
      ['Material', entry.materialName],
      ['Readings in the fit', String(used?.n ?? 0)],
      ['Next job', `within ${length(confirmation.nextJobMm)} in 95 of 100`],
      ['Record', entry.entry.id],
    ],
    parts: PARTS.map((part) => [
      PART_NAMES[part],
      partValueWords(part, parts[part].value, system),
      unsigned(partValueWords(part, 2 * parts[part].standardUncertainty, system)),
    ]),
    settings: await settingsThen(database, row, entry.entry.at),
    remarks: REMARKS,
  };
  const fingerprint = createHash('sha256').update(JSON.stringify(content)).digest('hex');
  const name = `certificate-${fileNamePart(entry.setupName)}-${confirmation.at.toISOString().slice(0, 10)}.pdf`;
  return { name, body: await writeCertificate({ ...content, fingerprint }) };
}
