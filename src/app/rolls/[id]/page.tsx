import Link from 'next/link';
import { notFound } from 'next/navigation';
import { database } from '@/server/services/database';
import { loadRoll } from '@/server/services/roll-read';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { DriftPage } from './drift-page';
import { KeyPage } from './key-page';
import { LogPage } from './log-page';
import { ReadStripPage } from './read-strip-page';
import { ScanPage } from './scan-page';
import { SectionsPage } from './sections-page';
import { StripPage } from './strip-page';

export const dynamic = 'force-dynamic';

const OF_STRIP = [
  { id: 'strip', words: 'Print and cut', page: StripPage },
  { id: 'read', words: 'Read', page: ReadStripPage },
] as const;
const OF_DISCS = [{ id: 'scan', words: 'Scan pieces', page: ScanPage }] as const;
const OF_RUN = [{ id: 'log', words: 'Log', page: LogPage }] as const;
const OF_BOTH = [
  { id: 'drift', words: 'Drift', page: DriftPage },
  { id: 'key', words: 'Key in', page: KeyPage },
  { id: 'sections', words: 'Sections', page: SectionsPage },
] as const;

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ look?: string }>;
}

export default async function RollPage({ params, searchParams }: Props) {
  const [{ id }, { look }] = await Promise.all([params, searchParams]);
  const [session, record] = await Promise.all([currentSession(), loadRoll(database(), id)]);
  if (!record) notFound();
  const { roll, setupRow } = record;
  const looks = [...(roll.kind === 'strip' ? OF_STRIP : OF_RUN), ...(roll.hasDiscs ? OF_DISCS : []), ...OF_BOTH];
  const chosen = looks.find((l) => l.id === look) ?? looks[0];
  if (!chosen) notFound();
  const Page = chosen.page;
  return (
    <HomeShell here="Bench" people={session}>
      <p className="crumbs">
        <Link href={`/setups/${roll.setupId}/rolls`} prefetch={false}>
          {`${setupRow.setup.name}: rolls`}
        </Link>
      </p>
      <Page
        record={record}
        system={session.person.unitSystem}
        currency={session.shop.currency}
        nav={
          <nav aria-label="This roll" className="d-flex flex-wrap gap-2 mb-3">
            {looks.map((l) => (
              <Link
                key={l.id}
                href={`/rolls/${id}?look=${l.id}`}
                prefetch={false}
                className={`btn ${l.id === chosen.id ? 'btn-primary' : 'btn-quiet'}`}
                aria-current={l.id === chosen.id ? 'page' : undefined}
              >
                {l.words}
              </Link>
            ))}
          </nav>
        }
      />
    </HomeShell>
  );
}
