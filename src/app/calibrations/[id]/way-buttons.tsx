import Link from 'next/link';
import type { Analysis } from '@/server/services/analysis';
import { canMoveFile, type CalibrationRecord } from '@/server/services/record';
import { unknownNames, wayOut } from '@/server/services/way-out';
import { LeaveAsIs } from '@/ui/calibration/LeaveAsIs';
import { learnedFrom, testTakes, trialLoading, trialsOf } from '@/server/services/which-way';
import { ActionButton } from '@/ui/calibration/ActionButton';
import { TestStart } from '@/ui/which-way/TestStart';
import { LearnedSettings } from './which-way-page';

/** One press to the test that tells which way + goes, on the material of this check. */
export function FindDirection({ record, analysis, isMain }: WayProps & { readonly isMain: boolean }) {
  const { calibration, material, block, definition } = record;
  if (trialsOf(record))
    return (
      <p>
        <Link
          className={`btn ${isMain ? 'btn-primary' : 'btn-quiet'}`}
          href={`/calibrations/${calibration.id}/cut?trial=1`}
          prefetch={false}
        >
          {`Find which way ${unknownNames(analysis)} ${analysis.unknownDirection.length === 1 ? 'goes' : 'go'}`}
        </Link>
        <span className="quiet d-block">
          {trialLoading(record) === 'another-sheet'
            ? 'One more sheet, with the value changed.'
            : 'One more cut on this sheet, with the value changed.'}
        </span>
      </p>
    );
  return (
    <TestStart
      setupId={calibration.setupId}
      materials={[material]}
      lastMaterialId={material.id}
      page={{ ...block.page, name: block.name }}
      toleranceMm={calibration.toleranceMm}
      kind="which_way"
      isMain={isMain}
      words={`Find which way ${unknownNames(analysis)} ${analysis.unknownDirection.length === 1 ? 'goes' : 'go'}`}
      takes={testTakes(definition.sets, analysis.unknownDirection)}
    />
  );
}

interface WayProps {
  readonly record: CalibrationRecord;
  readonly analysis: Analysis;
}

/** What to do about a map that nothing was corrected for yet: the one that helps is dark. */
export function WayButtons({ record, analysis, keepAll }: WayProps & { readonly keepAll: boolean }) {
  const { id } = record.calibration;
  const way = wayOut(record, analysis);
  const settings = (words: string, isMain: boolean) => (
    <Link
      className={`btn ${isMain ? 'btn-primary' : 'btn-quiet'}`}
      href={`/calibrations/${id}/settings${keepAll ? '?keep=all' : ''}`}
      prefetch={false}
    >
      {words}
    </Link>
  );
  switch (way) {
    case 'good-as-it-is':
      return (
        <p className="d-flex flex-wrap gap-2">
          <LeaveAsIs calibrationId={id} keepAll={keepAll} />
          {settings('Correct it all the same', false)}
        </p>
      );
    case 'nothing-to-correct':
      return (
        <p className="d-flex flex-wrap gap-2">
          <Link className="btn btn-primary" href={`/calibrations/${id}/cut`} prefetch={false}>
            Reload and cut
          </Link>
          {settings('Choose the way out', false)}
        </p>
      );
    case 'cannot-tell':
      return (
        <p className="d-flex flex-wrap gap-2">
          <Link className="btn btn-primary" href={`/setups/${record.calibration.setupId}`} prefetch={false}>
            Change the limit
          </Link>
          {settings('Choose the way out', false)}
        </p>
      );
    case 'keep-direction':
      return (
        <>
          <LearnedSettings told={learnedFrom(record) ?? []} feeds={record.setupRow.cutter.feeds} />
          <ActionButton action="keep-which-way" calibrationId={id} words="Keep what was learned" isMain />
        </>
      );
    case 'find-direction':
      return (
        <>
          <FindDirection record={record} analysis={analysis} isMain />
          <p>{settings(canMoveFile(record) ? 'Move the cut in the file' : 'Hide it with a border', false)}</p>
        </>
      );
    case 'set':
    case 'move-file':
    case 'hide':
      return <p>{settings('Choose the way out', true)}</p>;
  }
}
