import { leadingMarkOf } from '@/server/services/job-view';
import { stampWords } from '@/ui/components/dates';
import { JobEditor } from '@/ui/job/JobEditor';
import { JobEnds } from '@/ui/job/JobEnds';
import type { JobProps } from './job-props';

/** The layout while it may still change. */
export function DraftPage({ view, session }: JobProps) {
  const { job, draft, facts, error, row, materials } = view;
  const { person } = session;
  return (
    <>
      {job.state !== 'archived' && (
        <JobEditor
          key={job.id}
          view={{
            jobId: job.id,
            setupId: job.setupId,
            version: job.version,
            name: job.name,
            materialId: job.materialId,
            draft,
            system: person.unitSystem,
            currency: session.shop.currency,
            page: facts.page,
            layout: facts.layout,
            onlyProgram: facts.onlyProgram,
            hasOwnMarks: facts.hasOwnMarks,
            leadingMark: facts.hasOwnMarks ? '' : leadingMarkOf(row),
            materials: materials.map(({ id, name, thermalPerK, printableWidthMm }) => ({
              id,
              name,
              thermalPerK,
              printableWidthMm,
            })),
            error: error && {
              beta: error.beta,
              constantCovariance: error.constantCovariance,
              markSdMm: error.markSdMm,
              markUse: error.markUse,
              isMarkSdAssumed: error.isMarkSdAssumed,
              since: stampWords(error.confirmedAt, person.timeZone),
            },
          }}
        />
      )}
      <JobEnds jobId={job.id} isArchived={job.state === 'archived'} isDraft />
    </>
  );
}
