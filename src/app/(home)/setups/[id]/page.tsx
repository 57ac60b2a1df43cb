import Link from 'next/link';
import { notFound } from 'next/navigation';
import { readSetup } from '@/server/services/setup';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { usualLimitsMm } from '@/core/shop/limits';
import { LimitControl } from '@/ui/components/LimitControl';
import { SettingNow } from '@/ui/components/SettingNow';
import { MarkUseStart } from '@/ui/which-way/MarkUseStart';
import { TestStart } from '@/ui/which-way/TestStart';
import { StartForm } from '@/ui/components/StartForm';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

export default async function SetupPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [session, found] = await Promise.all([currentSession(), readSetup(database(), id)]);
  if (!found) notFound();
  const test = {
    setupId: id,
    materials: found.materials,
    lastMaterialId: found.lastMaterialId,
    page: found.page,
    toleranceMm: found.toleranceMm,
  };
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>{`${found.name}: choose a check and make its sheet`}</PageHeading>
      <p className="quiet">
        {found.machines}.{' '}
        <Link href={`/setups/${id}/trouble`} prefetch={false}>
          What&rsquo;s wrong?
        </Link>{' '}
        <Link href={`/setups/${id}/cut-file`} prefetch={false}>
          Correct a cut file
        </Link>{' '}
        <Link href={`/setups/${id}/daily`} prefetch={false}>
          Daily check
        </Link>{' '}
        <Link href={`/setups/${id}/policy`} prefetch={false}>
          When to check again
        </Link>{' '}
        <Link href={`/setups/${id}/measure`} prefetch={false}>
          Measure by rule
        </Link>{' '}
        <Link href={`/setups/${id}/rolls`} prefetch={false}>
          Long rolls
        </Link>{' '}
        <Link href={`/jobs?setupId=${id}`} prefetch={false}>
          Lay out a job
        </Link>
      </p>
      <LimitControl
        setupId={id}
        limitMm={found.toleranceMm}
        usualMm={usualLimitsMm(found.family, session.person.unitSystem)}
        system={session.person.unitSystem}
      />
      <StartForm
        key={found.toleranceMm}
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
          <TestStart
            {...test}
            kind="which_way"
            words={`Find out which way ${found.toLearn.join(' and ')} ${found.toLearn.length === 1 ? 'goes' : 'go'}`}
            takes={found.testTakes}
          />
        )}
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
        {found.isTwoFaced && (
          <TestStart
            {...test}
            kind="two_faces"
            words="Measure the back against the front"
            takes="One sheet printed on both faces; its discs are read on both."
          />
        )}
        <MarkUseStart view={{ ...test, system: session.person.unitSystem, ...found.markTest }} />
        <p className="d-flex flex-wrap gap-2">
          <Link className="btn btn-quiet" href={`/setups/${id}/blade`} prefetch={false}>
            Blade and force
          </Link>
          <a className="btn btn-quiet" href={`/setups/${id}/card`} download>
            Value card for the machine (PDF)
          </a>
        </p>
      </section>
    </HomeShell>
  );
}
