import Link from 'next/link';
import { notFound } from 'next/navigation';
import { database } from '@/server/services/database';
import { readMeasure } from '@/server/services/measure';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { BeforeAndAfter } from '@/ui/measure/BeforeAndAfter';
import { ByHand } from '@/ui/measure/ByHand';
import { FourBordersTool } from '@/ui/measure/FourBordersTool';
import { OwnTestTool } from '@/ui/measure/OwnTestTool';
import { PrintAgainstPage } from '@/ui/measure/PrintAgainstPage';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

const TOOLS = [
  { id: 'page', words: 'Print against page', title: 'does the print match the page?' },
  { id: 'hand', words: 'Register by hand', title: 'register by hand' },
  { id: 'borders', words: 'Borders of a piece', title: 'is the cut still where it should be?' },
  { id: 'own-test', words: 'The machine\u2019s own test', title: 'what does its own test say?' },
  { id: 'film', words: 'Before and after lamination', title: 'what did the film do?' },
  { id: 'cut', words: 'Two-point distances', title: 'how large is the cut against the print?' },
] as const;

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ tool?: string }>;
}

export default async function MeasurePage({ params, searchParams }: Props) {
  const [{ id }, { tool }] = await Promise.all([params, searchParams]);
  const [session, found] = await Promise.all([currentSession(), readMeasure(database(), id)]);
  if (!found) notFound();
  const chosen = TOOLS.find((t) => t.id === tool) ?? TOOLS[0];
  const view = { ...found, setupId: id, system: session.person.unitSystem };
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>{`${found.setupName}: ${chosen.title}`}</PageHeading>
      <nav aria-label="What to measure" className="d-flex flex-wrap gap-2 mb-3">
        {TOOLS.map((t) => (
          <Link
            key={t.id}
            href={`/setups/${id}/measure?tool=${t.id}`}
            prefetch={false}
            className={`btn ${t.id === chosen.id ? 'btn-primary' : 'btn-quiet'}`}
            aria-current={t.id === chosen.id ? 'page' : undefined}
          >
            {t.words}
          </Link>
        ))}
      </nav>
      {chosen.id === 'page' && <PrintAgainstPage view={view} />}
      {chosen.id === 'hand' && <ByHand view={view} />}
      {chosen.id === 'borders' && <FourBordersTool view={view} />}
      {chosen.id === 'own-test' && <OwnTestTool view={view} />}
      {(chosen.id === 'film' || chosen.id === 'cut') && <BeforeAndAfter key={chosen.id} view={view} what={chosen.id} />}
    </HomeShell>
  );
}
