import { stampWords } from '@/ui/components/dates';
import { moneyWords } from '@/ui/components/money';
import { JobEnds } from '@/ui/job/JobEnds';
import { ResultForm } from '@/ui/job/ResultForm';
import { Releases } from './cut-page';
import { Locked, LockLine, type JobProps } from './job-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Cut: how it came out, and everything that led there. */
export function DonePage({ view, session }: JobProps) {
  const { job, results } = view;
  const [latest] = results;
  const head = latest
    ? `${job.name}: ${latest.result.good} good, ${latest.result.spoiled} spoiled`
    : `${job.name} was cut`;
  return (
    <>
      <PageHeading>{head}</PageHeading>
      <LockLine view={view} session={session} />
      <div className="two">
        <Locked view={view} session={session} />
        <div>
          <h2>How it came out</h2>
          <ul>
            {results.map(({ result, personName }) => (
              <li key={result.id}>
                {`${result.good} good, ${result.spoiled} spoiled, cost ${moneyWords(result.spoiledCost, session.shop.currency)}`}
                <span className="quiet d-block">
                  {`${stampWords(result.at, session.person.timeZone)}, ${personName}${result.note ? `: ${result.note}` : ''}`}
                </span>
              </li>
            ))}
          </ul>
          {job.state !== 'archived' && (
            <details>
              <summary>Tell it again</summary>
              <p className="quiet">Both stay; the newest counts.</p>
              <ResultForm
                jobId={job.id}
                made={latest?.result.good ?? 0}
                light={null}
                currency={session.shop.currency}
              />
            </details>
          )}
          <Releases view={view} session={session} />
          <JobEnds jobId={job.id} isArchived={job.state === 'archived'} isDraft={false} />
        </div>
      </div>
    </>
  );
}
