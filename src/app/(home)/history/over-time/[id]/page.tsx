import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { database } from '@/server/services/database';
import { findMaterials } from '@/server/services/named';
import { readOverTime } from '@/server/services/over-time';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { OverTimeChart } from '@/ui/history/OverTimeChart';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ material?: string }>;
}

/** How a setup was found and left over the years. */
export default async function OverTimePage({ params, searchParams }: Props) {
  const [{ id }, { material }] = await Promise.all([params, searchParams]);
  if (!z.uuid().safeParse(id).success) notFound();
  const session = await currentSession();
  const materials = await findMaterials(database(), session.shop.id);
  const chosen = materials.find((m) => m.id === material);
  const view = await readOverTime(database(), id, chosen?.id);
  if (!view) notFound();
  return (
    <HomeShell here="History" people={session}>
      <PageHeading>{`${view.setupName}: how it was found, and how it was left`}</PageHeading>
      <nav aria-label="Material" className="d-flex flex-wrap gap-2 mb-3">
        {[{ id: '', name: 'Every material' }, ...materials].map((m) => (
          <Link
            key={m.id}
            href={`/history/over-time/${id}${m.id ? `?material=${m.id}` : ''}`}
            prefetch={false}
            className={`btn ${m.id === (chosen?.id ?? '') ? 'btn-primary' : 'btn-quiet'}`}
            aria-current={m.id === (chosen?.id ?? '') ? 'page' : undefined}
          >
            {m.name}
          </Link>
        ))}
      </nav>
      {view.points.length === 0 ? (
        <p>Nothing was confirmed here yet: the chart begins with the first calibration that is.</p>
      ) : (
        <OverTimeChart key={chosen?.id ?? 'all'} view={view} system={session.person.unitSystem} />
      )}
    </HomeShell>
  );
}
