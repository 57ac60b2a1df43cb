import Link from 'next/link';
import { effectPerUnit, isOffset } from '@/core/setting/machine-setting';
import { viewTurnOf } from '@/core/geometry/load';
import { formatLength } from '@/core/units/length';
import { analyse, type Analysis } from '@/server/services/analysis';
import { changeView } from '@/server/services/change-view';
import { changedOnly } from '@/server/services/corrections';
import type { Way } from '@/contracts/inputs';
import { firstWay } from '@/server/services/next-deed';
import { canMoveFile } from '@/server/services/record';
import { unknownNames, wayOut, type WayOut } from '@/server/services/way-out';
import { SettingsForm } from '@/ui/calibration/SettingsForm';
import { MovePicture } from '@/ui/calibration/MovePicture';
import type { StepProps } from './step-props';
import { FindDirection } from './way-buttons';
import { MovedSince } from './moved-since';
import { PageHeading } from '@/ui/components/PageHeading';

const HEADLINES: Readonly<Record<Exclude<WayOut, 'set'>, string>> = {
  'good-as-it-is': 'Good as it is',
  'keep-direction': 'Keep which way + goes first',
  'nothing-to-correct': 'Nothing here is large enough to correct',
  'cannot-tell': 'Nothing here is large enough to correct',
  'find-direction': 'First find which way + goes',
  'move-file': 'No setting reaches it: move the cut in the file',
  hide: 'No setting reaches it: hide it with a border',
};

function headline(way: WayOut, first: Way, changes: readonly ReturnType<typeof changeView>[]): string {
  if (way !== 'set') return HEADLINES[way];
  if (first === 'file') return 'Settings leave too much: move the cut in the file';
  return changes
    .map(({ plan: { setting }, before, after, toType }) =>
      setting.kind === 'wizard'
        ? `Pick line ${toType} in ${setting.displayName}`
        : `Set ${setting.displayName} from ${before} to ${after}`,
    )
    .join('; ');
}

/** Above this a machine that scales its offset too would be out by more than an offset's step. */
const LARGE_SCALE_CHANGE = 0.001;

function changesScale(a: Analysis): boolean {
  return a.plan.changes.some(
    ({ setting, before, after }) =>
      !isOffset(setting) && Math.abs(after - before) * effectPerUnit(setting) > LARGE_SCALE_CHANGE,
  );
}

export function SettingsPage({ record, system, query }: StepProps) {
  const keepAll = query.keep === 'all';
  const { id, toleranceMm } = record.calibration;
  const analysed = analyse(record, keepAll);
  if (!analysed.ok) {
    return (
      <>
        <PageHeading>Read the sheet first</PageHeading>
        <p>
          <Link href={`/calibrations/${id}/read`}>Read the sheet</Link>
        </p>
      </>
    );
  }
  const a = analysed.value;
  const { cutter } = record.setupRow;
  const { feeds } = cutter;
  const changes = changedOnly(a.plan).map((c) => changeView(c, cutter));
  const canMove = canMoveFile(record);
  const way = firstWay(record, a);
  const out = wayOut(record, a);
  const leavesRest = a.afterSettingsMm > toleranceMm / 5;
  return (
    <>
      <PageHeading>{headline(out, way, changes)}</PageHeading>
      <MovedSince analysis={a} />
      {a.unknownDirection.length > 0 && (
        <div className="notice">
          <p>
            {`We do not know which way + goes on ${unknownNames(a)}. With the wrong sign the error would double, so no value is given.`}
          </p>
          <FindDirection record={record} analysis={a} isMain={out === 'find-direction'} />
        </div>
      )}
      {changesScale(a) && (
        <p className="notice">
          A scale changes by more than 0.1 %, and most machines scale their offset with it. Confirm on a new load, and
          if an offset is left then, correct that once more.
        </p>
      )}
      <div className="two">
        <div className="bed stay">
          <MovePicture
            before={a.fit.map}
            load={a.load}
            after={a.plan.after}
            feed={feeds}
            turnDeg={viewTurnOf(a.load, feeds)}
            area={record.area}
            worstMm={a.bounds.worstMm}
          />
        </div>
        <SettingsForm
          calibrationId={id}
          keepAll={keepAll}
          changes={changes}
          setBackFirst={a.atCut.mustSetBack.map((c) => changeView(c, cutter))}
          afterSettings={formatLength(a.afterSettingsMm, system)}
          afterFile="only what loading and reading leave"
          borderWords={`A white border or bleed under ${formatLength(a.next.q95Mm, system)} will show the error.`}
          leavesRest={leavesRest}
          firstWay={way}
          isMain={out !== 'find-direction'}
          canMoveFile={canMove}
        />
      </div>
    </>
  );
}
