import { IMPORT_KINDS, type ImportKind } from '@/contracts/import';
import { IMPORT_COLUMNS } from '@/server/services/import-columns';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { ImportTool } from '@/ui/import/ImportTool';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

const HEADS = Object.fromEntries(
  IMPORT_KINDS.map((kind) => [kind, IMPORT_COLUMNS[kind].map((c) => c.title).join(';')]),
) as Readonly<Record<ImportKind, string>>;

/** Tables from other tools: what a shop has kept in spreadsheets so far. */
export default async function ImportPage() {
  const session = await currentSession();
  return (
    <HomeShell here="Shop" people={session}>
      <PageHeading>Take in a table from another tool</PageHeading>
      <ImportTool heads={HEADS} />
    </HomeShell>
  );
}
