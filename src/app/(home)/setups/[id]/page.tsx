import { notFound } from 'next/navigation';
import { readSetup } from '@/server/services/setup';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { SettingNow } from '@/ui/components/SettingNow';
import { WhichWayStart } from '@/ui/which-way/WhichWayStart';
import { StartForm } from '@/ui/components/StartForm';

export const dynamic = 'force-dynamic';

export default async function SetupPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [session, found] = await Promise.all([currentSession(), readSetup(database(), id)]);
  if (!found) notFound();
  return (
    <HomeShell here="Bench" people={session}>
      <h1>{`${found.name}: choose a check and make its sheet`}</h1>
      <p className="quiet">{found.machines}</p>
      <StartForm
        view={{
          setupId: id,
          page: found.page,
          marks: found.marks,
          style: found.style,
          sets: found.sets,
          toleranceMm: found.toleranceMm,
          materials: found.materials,
          lastMaterialId: found.lastMaterialId,
          system: session.person.unitSystem,
        }}
      />
      <section className="mt-4">
        <h2>What this machine can be set to</h2>
        {found.toLearn.length > 0 && (
          <WhichWayStart
            setupId={id}
            materialId={found.lastMaterialId ?? found.materials[0]?.id ?? ''}
            page={found.page}
            toleranceMm={found.toleranceMm}
            names={found.toLearn}
          />
        )}
        <p>
          <a className="btn btn-quiet" href={`/setups/${id}/card`} download>
            Value card for the machine (PDF)
          </a>
        </p>
        {found.settings.length === 0 ? (
          <p>
            Nothing can be set on this cutter. Red Plumb will move the cut lines in the file instead, or say what border
            hides the error.
          </p>
        ) : (
          <table className="plain">
            <thead>
              <tr>
                <th>on the display</th>
                <th>now</th>
                <th>what plus does</th>
                <th>range</th>
              </tr>
            </thead>
            <tbody>
              {found.settings.map((s) => (
                <tr key={s.id}>
                  <td>{s.name}</td>
                  <td>
                    <SettingNow settingId={s.id} name={s.name} value={s.value} />
                  </td>
                  <td>{s.plusWords}</td>
                  <td className="figures">{s.range}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
    </HomeShell>
  );
}
