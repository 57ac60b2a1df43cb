import { cutInstructions } from '@/server/services/instructions';
import { doneSets, planCut } from '@/server/services/record';
import { CutStep } from '@/ui/calibration/CutStep';
import { ActionButton } from '@/ui/calibration/ActionButton';
import type { StepProps } from './step-props';

export function CutPage({ record }: StepProps) {
  const instructions = cutInstructions(record);
  const { id } = record.calibration;
  const last = doneSets(record).at(-1);
  const needsNewSheet = planCut(record, true).needsNewSheet;
  return (
    <>
      <h1>
        {instructions.isConfirm
          ? 'Unload, load again, and cut the confirming set'
          : `Load the sheet and cut set ${instructions.setNo}`}
      </h1>
      {needsNewSheet && (
        <p className="notice">
          Both cut sets of this sheet are used.{' '}
          <ActionButton
            action="another-sheet"
            calibrationId={id}
            words="Print another sheet"
            isMain
            href={`/calibrations/${id}/print`}
          />
        </p>
      )}
      <CutStep
        key={`${doneSets(record).length}`}
        view={{
          calibrationId: id,
          setNo: instructions.setNo,
          isConfirm: instructions.isConfirm,
          feed: record.setupRow.cutter.feeds,
          load: last?.load ?? { turnDeg: record.setupRow.cutter.feeds === 'away' ? 0 : 180, face: 'ink-up' },
          instructions: {
            ...instructions,
            files: instructions.files.map((f) => ({ ...f, href: `/calibrations/${id}/files/${f.kind}` })),
          },
          isSimulated: record.setupRow.isSimulated,
          tries: record.markAttempts.map((t) => ({ tried: t.tried, outcome: t.outcome })),
          needsNewSheet,
          hasMarkTrouble: record.cutSets.at(-1)?.outcome === 'marks_not_read',
          definition: record.definition,
          code: record.code,
          marks: { centres: record.marks, isOurs: record.calibration.route === 'D' },
        }}
      />
    </>
  );
}
