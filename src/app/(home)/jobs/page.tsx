import Link from 'next/link';
import { z } from 'zod';
import { LONG_WAIT_HOURS } from '@/core/layout/job-sentence';
import { formatFixed } from '@/core/units/length';
import { now } from '@/server/clock';
import { readSetups } from '@/server/services/job-shop';
import { database } from '@/server/services/database';
import { readJobs, type JobLine } from '@/server/services/job-view';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { JobStart } from '@/ui/job/JobStart';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

const HOUR_MS = 3_600_000;

/** What waits, each in one sentence, the longest first. */
function Waiting({ jobs, at }: { readonly jobs: readonly JobLine[]; readonly at: Date }) {
  if (jobs.length === 0)
    return <p className="quiet">What was printed and not cut yet will stand here, with how long it waits.</p>;
  return (
    <ul className="jobs">
      {jobs.map((job) => {
        const hours = job.printedAt ? (at.getTime() - job.printedAt.getTime()) / HOUR_MS : 0;
        const isWet = job.dryAt !== null && job.dryAt > at;
        return (
          <li key={job.id}>
            <Link href={`/jobs/${job.id}`} prefetch={false}>
              {job.sentence}
            </Link>
            <span className="quiet d-block">
              {`${job.setupName}, ${job.materialName}`}
              {hours > LONG_WAIT_HOURS ? ' \u25d0 it waits for more than a week' : ''}
              {isWet && (
                <>
                  {' '}
                  <a href={`/jobs/${job.id}/dry`} download>
                    put the hour in a calendar
                  </a>
                </>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

interface OthersProps {
  readonly title: string;
  readonly jobs: readonly JobLine[];
  readonly empty: string;
  /** Where the ones before these stand. */
  readonly earlierHref?: string | null;
}

function Others({ title, jobs, empty, earlierHref }: OthersProps) {
  return (
    <section className="mt-4" aria-label={title}>
      <h2>{title}</h2>
      {jobs.length === 0 ? (
        <p className="quiet">{empty}</p>
      ) : (
        <ul className="jobs">
          {jobs.map((job) => (
            <li key={job.id}>
              <Link href={`/jobs/${job.id}`} prefetch={false}>
                {job.sentence}
              </Link>
              <span className="quiet d-block">
                {`${job.setupName}, ${job.materialName}`}
                {job.result
                  ? `; ${job.result.good} good, ${job.result.spoiled} spoiled, cost ${formatFixed(job.result.spoiledCost, 2)}`
                  : ''}
                {job.archivedReason ? `; ${job.archivedReason}` : ''}
              </span>
            </li>
          ))}
        </ul>
      )}
      {earlierHref && (
        <p className="mt-3">
          <Link href={earlierHref} prefetch={false}>
            Earlier ones
          </Link>
        </p>
      )}
    </section>
  );
}

function headline(waiting: readonly JobLine[]): string {
  if (waiting.length === 0) return 'Nothing waits to be cut';
  return waiting.length === 1 ? 'One job waits to be cut' : `${waiting.length} jobs wait to be cut`;
}

const JobNumber = z.coerce.number().int().min(1).max(2_000_000_000).optional().catch(undefined);
const Asked = z.object({ setupId: z.uuid().optional().catch(undefined), cut: JobNumber, away: JobNumber });

/** Address of the jobs before a number; null where there are none. */
function earlierHref(asked: z.infer<typeof Asked>, name: 'cut' | 'away', before: number | null): string | null {
  if (before === null) return null;
  const search = new URLSearchParams();
  for (const key of ['cut', 'away'] as const) {
    const number = key === name ? before : asked[key];
    if (number !== undefined) search.set(key, String(number));
  }
  return `/jobs?${search.toString()}`;
}

interface Props {
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

export default async function JobsPage({ searchParams }: Props) {
  const asked = Asked.parse(await searchParams);
  const session = await currentSession();
  const shopId = session.shop.id;
  const { timeZone } = session.person;
  const [jobs, { setups, materials }] = await Promise.all([
    readJobs(database(), { shopId, timeZone, cutBefore: asked.cut, archivedBefore: asked.away }),
    readSetups(database(), shopId),
  ]);
  const waiting = jobs.open
    .filter((j) => j.state === 'waiting')
    .sort((a, b) => (a.printedAt?.getTime() ?? 0) - (b.printedAt?.getTime() ?? 0));
  return (
    <HomeShell here="Jobs" people={session}>
      <PageHeading>{headline(waiting)}</PageHeading>
      <Waiting jobs={waiting} at={now()} />
      <section className="mt-4">
        <h2>A new job</h2>
        <JobStart setups={setups} materials={materials} setupId={asked.setupId ?? null} />
      </section>
      <Others
        title="Being laid out, or locked and not printed yet"
        jobs={jobs.open.filter((j) => j.state !== 'waiting')}
        empty="No job is being laid out."
      />
      <Others
        title={asked.cut ? `Cut, before job ${asked.cut}` : 'Cut'}
        jobs={jobs.cut.lines}
        empty="No job was cut yet."
        earlierHref={earlierHref(asked, 'cut', jobs.cut.earlier)}
      />
      <p>
        <Link href="/jobs/spoiled" prefetch={false}>
          Spoiled work and its cost
        </Link>
      </p>
      <Others
        title={asked.away ? `Put away, before job ${asked.away}` : 'Put away'}
        jobs={jobs.archived.lines}
        empty="Nothing was put away."
        earlierHref={earlierHref(asked, 'away', jobs.archived.earlier)}
      />
    </HomeShell>
  );
}
