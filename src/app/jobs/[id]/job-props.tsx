import Link from 'next/link';
import { formatSize } from '@/core/units/length';
import { leadingMarkOf, type JobView } from '@/server/services/job-view';
import { lockedShown } from '@/server/services/locked-shown';
import type { Session } from '@/server/services/session';
import { stampWords } from '@/ui/components/dates';
import { LockedPicture } from '@/ui/job/LockedPicture';

/** What each stage of a job is given. */
export interface JobProps {
  readonly view: JobView;
  readonly session: Session;
}

export interface StageProps extends JobProps {
  /** What was put on or under the material since it was printed; empty: nothing. */
  readonly stack: string;
}

/** Words of the end that leads, as they stand over the picture. */
export const leadingWords = (view: JobView): string => {
  const mark = view.facts.hasOwnMarks ? '' : leadingMarkOf(view.row);
  return mark ? `${mark}, this end first` : 'this end first';
};

/** The locked layout, large, with what it is made of below. */
export function Locked({ view, session }: JobProps) {
  const { locked, facts, job } = view;
  if (!locked) return null;
  const { draft, sheets, placements, page } = locked.content;
  const { person } = session;
  const size = `${formatSize(page.widthMm, person.unitSystem)} \u00d7 ${formatSize(page.lengthMm, person.unitSystem)}`;
  return (
    <div className="bed stay">
      <LockedPicture
        jobId={job.id}
        draft={draft}
        shown={lockedShown(locked.content)}
        rollers={facts.layout.rollers}
        hasOwnMarks={facts.hasOwnMarks}
        leadingWords={leadingWords(view)}
        system={person.unitSystem}
      />
      <p className="quiet mb-0">
        {draft.laysOut === 'program'
          ? `Laid out by the program: ${locked.ownFileName ?? ''}. ${size}.`
          : `${placements.length} on each ${draft.form === 'roll' ? 'piece' : 'sheet'}, ${sheets} planned, ${size}.`}
      </p>
    </div>
  );
}

/** Who locked it, when, and by which fingerprint the layout is known. */
export function LockLine({ view, session }: JobProps) {
  const { locked, job, row } = view;
  if (!locked) return null;
  return (
    <>
      <p className="quiet">
        {`${job.name}, job ${job.number}, on `}
        <Link href={`/setups/${row.setup.id}`} prefetch={false}>
          {row.setup.name}
        </Link>
        {`, ${view.material.name}. Locked ${stampWords(locked.at, session.person.timeZone)} by ${locked.by}; layout `}
        <span className="figures">{locked.hash.slice(0, 12)}</span>.
      </p>
      {locked.warnings.length > 0 && (
        <details>
          <summary>
            {locked.warnings.length === 1
              ? 'Locked with one thing looked at'
              : `Locked with ${locked.warnings.length} things looked at`}
          </summary>
          <ul>
            {locked.warnings.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
