import { database } from '@/server/services/database';
import { cutChanges } from '@/server/services/job-cut';
import { jobCutLooks, usualTurn } from '@/server/services/job-preflight';
import { stampFor } from '@/server/services/job-stamp';
import { lightBefore } from '@/server/services/mark-readings';
import { stampWords } from '@/ui/components/dates';
import { JobEnds } from '@/ui/job/JobEnds';
import { ReleaseForm } from '@/ui/job/ReleaseForm';
import { ResultForm } from '@/ui/job/ResultForm';
import { StackPicker } from '@/ui/job/StackPicker';
import { Locked, LockLine, type JobProps, type StageProps } from './job-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Cuts that were released, newest first, each with its file. */
export function Releases({ view, session }: JobProps) {
  const { releases, job } = view;
  if (releases.length === 0) return null;
  return (
    <>
      <h2>Released</h2>
      <ul>
        {releases.map((r) => (
          <li key={r.id} className="mb-2">
            {r.name === null ? (
              'Cut from the file that was printed'
            ) : (
              <a href={`/jobs/${job.id}/cuts/${r.id}`} download>
                {r.name}
              </a>
            )}
            <span className="quiet d-block">
              {`${stampWords(r.at, session.person.timeZone)}, ${r.personName}`}
              {r.changes.length > 0 ? `; looked at: ${r.changes.join(' ')}` : ''}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Until when it dries, and the hour for a calendar. */
function Drying({ view: { print, material, job }, session }: JobProps) {
  if (!print?.dryAt) return null;
  return (
    <p>
      {`It dries until ${stampWords(print.dryAt, session.person.timeZone)} (${material.name}: ${material.dryingHours} h). `}
      <a href={`/jobs/${job.id}/dry`} download>
        Put the hour in a calendar
      </a>
    </p>
  );
}

function Loading({ view }: Pick<JobProps, 'view'>) {
  return (
    <>
      <h2>Load it</h2>
      <ul>
        {jobCutLooks(view).map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
      <p className="caution">
        First run of a cut file: tool up, hand at stop, hands off sheet and rollers while marks are read. A pause may
        look like the end: do not unload before the machine says that it is done. Follow your machine&rsquo;s manual and
        local rules.
      </p>
    </>
  );
}

/** The pieces that were printed, where they are known. */
const madeOf = ({ locked, print }: JobProps['view']): number =>
  locked?.content.draft.laysOut === 'here' ? locked.content.placements.length * (print?.sheets ?? 1) : 0;

/** Printed and waiting: how it is loaded, what changed, the cut file, and how it came out. */
export async function CutPage({ view, session, stack }: StageProps) {
  const { job, locked, releases, facts } = view;
  const { person } = session;
  const changes = await cutChanges(database(), job.id, { stamp: stampFor(person.timeZone), stack });
  const isHere = locked?.content.draft.laysOut === 'here' && facts.hasOwnMarks;
  const turnDeg = isHere ? await usualTurn(database(), view) : null;
  const light = await lightBefore(database(), view.row);
  const isArchived = job.state === 'archived';
  return (
    <>
      <PageHeading>{view.sentence}</PageHeading>
      <LockLine view={view} session={session} />
      <div className="two">
        <Locked view={view} session={session} />
        <div>
          <Drying view={view} session={session} />
          <Loading view={view} />
          {!isArchived && (
            <StackPicker jobId={job.id} setupId={view.row.setup.id} materialId={view.material.id} stack={stack} />
          )}
          {!isArchived && (
            <ReleaseForm
              key={changes.join()}
              jobId={job.id}
              personName={person.name}
              changes={changes}
              ownFileName={locked?.ownFileName ?? null}
              turnDeg={turnDeg}
              stack={stack}
              hasScores={locked?.content.items.some((i) => (i.scores ?? []).length > 0) ?? false}
            />
          )}
          <Releases view={view} session={session} />
          {releases.length > 0 && !isArchived && (
            <ResultForm jobId={job.id} made={madeOf(view)} light={light} currency={session.shop.currency} />
          )}
          <JobEnds jobId={job.id} isArchived={isArchived} isDraft={false} />
        </div>
      </div>
    </>
  );
}
