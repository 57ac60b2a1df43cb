import { JobEnds } from '@/ui/job/JobEnds';
import { PrintedForm } from '@/ui/job/PrintedForm';
import { jobPrintLooks } from '@/server/services/job-preflight';
import { Locked, LockLine, type JobProps } from './job-props';
import { PageHeading } from '@/ui/components/PageHeading';

const FILE_WORDS: Readonly<Record<string, string>> = {
  'print-pdf': 'Print file (PDF), exact size, the viewer told not to scale',
  'print-svg': 'The same as SVG',
  drawing: 'One drawing for your program (SVG): art and cut lines in layers',
  'queue-pdf': 'For the print queue (PDF): cut lines in the spot ink',
};

/** Locked: its files, what to look over, and that it was printed. */
export function PrintPage({ view, session }: JobProps) {
  const { job, locked } = view;
  const { looks, warnings } = jobPrintLooks(view);
  const isArchived = job.state === 'archived';
  return (
    <>
      <PageHeading>{isArchived ? `${job.name} was put away before it was printed` : `Print ${job.name}`}</PageHeading>
      <LockLine view={view} session={session} />
      <div className="two">
        <Locked view={view} session={session} />
        <div>
          <h2>Files</h2>
          {locked?.files.length === 0 && (
            <p>{`Print ${locked.ownFileName ?? 'the file'} from the program that laid it out, at actual size, as it was saved.`}</p>
          )}
          <ul>
            {locked?.files.map((file) => (
              <li key={file.kind} className="mb-2">
                <a href={`/jobs/${job.id}/files/${file.kind}`} download>
                  {FILE_WORDS[file.kind] ?? file.name}
                </a>
                <span className="quiet figures d-block">{file.hash.slice(0, 16)}</span>
              </li>
            ))}
          </ul>
          {warnings.map((words) => (
            <p key={words} className="notice">
              {words}
            </p>
          ))}
          <h2>Look over before you print</h2>
          <ul>
            {looks.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
          {!isArchived && locked && (
            <PrintedForm jobId={job.id} sheets={locked.content.sheets} form={locked.content.draft.form} />
          )}
          <JobEnds jobId={job.id} isArchived={isArchived} isDraft={false} />
        </div>
      </div>
    </>
  );
}
