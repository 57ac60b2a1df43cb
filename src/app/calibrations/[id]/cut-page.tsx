import type { TrialLoading } from '@/core/setting/which-way';
import { database } from '@/server/services/database';
import { cutInstructions, printInstructions } from '@/server/services/instructions';
import { lightBefore } from '@/server/services/mark-readings';
import { doneSets, planCut, type CalibrationRecord } from '@/server/services/record';
import { changeView } from '@/server/services/change-view';
import { trialChanges, trialLoading, trialsOf } from '@/server/services/which-way';
import { TrialCut } from '@/ui/which-way/TrialCut';
import { CutStep } from '@/ui/calibration/CutStep';
import { ActionButton } from '@/ui/calibration/ActionButton';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Where a done cut leads: to reading it, or in a which-way test to the second cut. */
function nextAfterCut(record: CalibrationRecord, isConfirm: boolean): string {
  if (isConfirm) return 'confirm';
  return record.calibration.kind === 'which_way' ? 'cut' : 'read';
}

/** The one thing to do for a cut with a changed value. */
const TRIAL_HEADINGS: Readonly<Record<TrialLoading, (code: string) => string>> = {
  'same-load': () => 'Leave the sheet loaded, change the value, and cut set 2',
  reload: () => 'Change the value, load the sheet again, and cut set 2',
  'another-sheet': (code) => `Print sheet ${code}, change the value, and cut it`,
};

/** The cut with a changed value, on the sheet that was cut before or on another. */
function TrialPage({ record }: Pick<StepProps, 'record'>) {
  const { id } = record.calibration;
  const loading = trialLoading(record);
  const last = doneSets(record).at(-1);
  if (planCut(record, true).needsNewSheet)
    return (
      <>
        <PageHeading>The changed value is cut on another sheet</PageHeading>
        <p>It has a code of its own, so that the two cannot be mixed up.</p>
        <ActionButton
          action="another-sheet"
          calibrationId={id}
          words="Make the sheet"
          isMain
          href={`/calibrations/${id}/cut?trial=1`}
        />
      </>
    );
  const instructions = cutInstructions(record, true);
  const query = last ? `?turn=${last.load.turnDeg}&face=${last.load.face}` : '';
  const printed = loading === 'another-sheet' ? printInstructions(record).files : [];
  const cuts = instructions.files.filter((f) => !printed.some((p) => p.kind === f.kind));
  const files = [...printed, ...cuts].map((f) => ({ ...f, href: `/calibrations/${id}/files/${f.kind}${query}` }));
  return (
    <>
      <PageHeading>{TRIAL_HEADINGS[loading](record.code)}</PageHeading>
      <TrialCut
        key={doneSets(record).length}
        calibrationId={id}
        changes={trialChanges(record).map((c) => ({
          ...changeView(c, record.setupRow.cutter),
          moveWords: 'the reading tells which way the cut went',
        }))}
        loading={loading}
        instructions={{ ...instructions, files }}
      />
    </>
  );
}

export async function CutPage({ record, query }: StepProps) {
  const last = doneSets(record).at(-1);
  const isTrial = record.calibration.kind === 'which_way' || (query.trial === '1' && trialsOf(record) !== null);
  if (isTrial && last) return <TrialPage record={record} />;
  const instructions = cutInstructions(record);
  const { id } = record.calibration;
  const needsNewSheet = planCut(record, true).needsNewSheet;
  return (
    <>
      <PageHeading>
        {instructions.isConfirm
          ? 'Unload, load again, and cut the confirming set'
          : `Load the sheet and cut set ${instructions.setNo}`}
      </PageHeading>
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
          nextHref: `/calibrations/${id}/${nextAfterCut(record, instructions.isConfirm)}`,
          isConfirm: instructions.isConfirm,
          asksReload: last !== undefined && last.sheetNo === planCut(record, true).sheetNo,
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
          light: await lightBefore(database(), record.setupRow),
          marks: { centres: record.marks, isOurs: record.calibration.route === 'D' },
        }}
      />
    </>
  );
}
