import { notFound } from 'next/navigation';
import { readCutFileSetup } from '@/server/services/cut-file';
import { formatFixed } from '@/core/units/length';
import { rollError } from '@/server/services/roll-read';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { stampWords } from '@/ui/components/dates';
import { CutFileTool } from '@/ui/cut-file/CutFileTool';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ roll?: string }>;
}

export default async function CutFilePage({ params, searchParams }: Props) {
  const [{ id }, { roll }] = await Promise.all([params, searchParams]);
  const [session, view, drift] = await Promise.all([
    currentSession(),
    readCutFileSetup(database(), id),
    rollError(database(), id, roll),
  ]);
  if (!view) notFound();
  const { saved, ...rest } = view;
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>{`${view.setupName}: correct a cut file`}</PageHeading>
      <CutFileTool
        view={{
          ...rest,
          roll: drift && {
            error: drift.error,
            words: `the roll begun ${stampWords(drift.at, session.person.timeZone)}, ${formatFixed(drift.lengthMm / 1000, 1)} m`,
          },
          system: session.person.unitSystem,
          saved: saved && {
            correction: saved.correction,
            words: `saved ${stampWords(saved.at, session.person.timeZone)} on ${saved.materialName}`,
          },
        }}
      />
    </HomeShell>
  );
}
