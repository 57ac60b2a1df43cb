import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { Stack } from '@/contracts/floor';
import { database } from '@/server/services/database';
import { readJob, type JobView } from '@/server/services/job-view';
import { currentSession } from '@/server/services/session';
import { Rail, type RailStop } from '@/ui/components/Rail';
import { CutPage } from './cut-page';
import type { StageProps } from './job-props';
import { DonePage } from './done-page';
import { DraftPage } from './draft-page';
import { PrintPage } from './print-page';

export const dynamic = 'force-dynamic';

const STAGES = ['Lay out', 'Print', 'Cut', 'Result'] as const;
const STAGE_OF = { draft: 0, locked: 1, waiting: 2, cut: 3 } as const;
type StagePage = (props: StageProps) => ReactNode | Promise<ReactNode>;
const PAGES: readonly StagePage[] = [DraftPage, PrintPage, CutPage, DonePage];

const stageOf = ({ job }: JobView): number =>
  STAGE_OF[job.state === 'archived' ? (job.archivedState ?? 'draft') : job.state];

function stopsOf(stage: number): readonly RailStop[] {
  const steps = STAGES.map((label, i): RailStop => {
    if (i === stage) return { label, place: 'here' };
    return { label, place: i < stage ? 'done' : 'ahead' };
  });
  return [{ label: 'Bench', href: '/', place: 'done' }, { label: 'Jobs', href: '/jobs', place: 'done' }, ...steps];
}

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ stack?: string }>;
}

export default async function JobPage({ params, searchParams }: Props) {
  const [{ id }, asked] = await Promise.all([params, searchParams]);
  const stack = Stack.catch('').parse(asked.stack ?? '');
  const session = await currentSession();
  const view = await readJob(database(), session.shop.id, id, session.person.timeZone);
  if (!view) notFound();
  const stage = stageOf(view);
  const Page = PAGES[stage] ?? DonePage;
  return (
    <div className="shell">
      <Rail people={session} stops={stopsOf(stage)} />
      <main>
        {view.job.state === 'archived' && (
          <p className="notice">{`Put away: ${view.job.archivedReason ?? ''}. Nothing of it is lost.`}</p>
        )}
        <Page view={view} session={session} stack={stack} />
      </main>
    </div>
  );
}
