import Link from 'next/link';
import { notFound } from 'next/navigation';
import { sumWords } from '@/core/trust/policy';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { readPolicy } from '@/server/services/policy-view';
import { HomeShell } from '@/ui/components/HomeShell';
import { PolicyForm } from '@/ui/trust/PolicyForm';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ material?: string }>;
}

/** When a setup is checked again: by evidence, by events, by the calendar, by jobs, before costly work. */
export default async function PolicyPage({ params, searchParams }: Props) {
  const [{ id }, { material }] = await Promise.all([params, searchParams]);
  const [session, found] = await Promise.all([currentSession(), readPolicy(database(), id, material)]);
  if (!found) notFound();
  const { setupName, materials, materialId, policy, sums } = found;
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>{`${setupName}: when is it checked again?`}</PageHeading>
      <nav aria-label="For which material" className="d-flex flex-wrap gap-2 mb-3">
        {[{ id: null, name: 'Every material' }, ...materials].map((m) => (
          <Link
            key={m.id ?? 'all'}
            href={`/setups/${id}/policy${m.id ? `?material=${m.id}` : ''}`}
            prefetch={false}
            className={`btn ${m.id === materialId ? 'btn-primary' : 'btn-quiet'}`}
            aria-current={m.id === materialId ? 'page' : undefined}
          >
            {m.name}
          </Link>
        ))}
      </nav>
      <div className="two">
        <PolicyForm
          key={`${materialId ?? 'all'} ${policy.version}`}
          view={{
            setupId: id,
            materialId,
            id: policy.id,
            version: policy.version,
            policy,
            currency: session.shop.currency,
          }}
        />
        <section aria-label="What it comes to today">
          <h2>Today</h2>
          {sums.length === 0 && <p>Nothing is confirmed yet: there is nothing to weigh.</p>}
          {sums.map((s) => (
            <div key={s.materialName} className="mb-3">
              <h3 className="fs-6">{s.materialName}</h3>
              <p className="mb-1">{`${sumWords(s.due.sum)}.`}</p>
              <p className="quiet">{s.due.isDue ? `Due: ${s.due.reason}.` : `Not due: ${s.due.reason}.`}</p>
            </div>
          ))}
        </section>
      </div>
    </HomeShell>
  );
}
