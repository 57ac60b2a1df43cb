import { notFound } from 'next/navigation';
import { readCutFileSetup } from '@/server/services/cut-file';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { stampWords } from '@/ui/components/dates';
import { CutFileTool } from '@/ui/cut-file/CutFileTool';

export const dynamic = 'force-dynamic';

export default async function CutFilePage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [session, view] = await Promise.all([currentSession(), readCutFileSetup(database(), id)]);
  if (!view) notFound();
  const { saved, ...rest } = view;
  return (
    <HomeShell here="Bench" people={session}>
      <h1>{`${view.setupName}: correct a cut file`}</h1>
      <CutFileTool
        view={{
          ...rest,
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
