import { formatSize, type UnitSystem } from '@/core/units/length';
import { MOST_LISTED } from '@/contracts/rolls';
import { slotName } from '@/core/target/roll-strip';
import { AXES } from '@/core/target/wedge';
import { adviceOf, rollEndMm } from '@/server/services/roll-read';
import { adviceWords } from '@/server/services/roll-words';
import { chartsOf, driftOf, stationsOf } from '@/server/services/roll-drift-view';

import { DriftChart } from '@/ui/roll/DriftChart';
import { PieceEntry } from '@/ui/roll/PieceEntry';
import { CloseRoll, StandInButton } from '@/ui/roll/RollButtons';
import { StationListForm } from '@/ui/roll/StationListForm';
import { AdviceMark } from '@/ui/roll/AdviceMark';
import type { RollProps } from './roll-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Pieces of a run that are due, in order. */
function duePieces({ record: { figures, readings } }: Pick<RollProps, 'record'>): readonly number[] {
  const open = figures.filter((f) => !readings.has(slotName(f))).map((f) => f.stationNo);
  return [...new Set(open)];
}

/** What has been read, also before anything can be told from it. */
function Charts({ record, system }: { readonly record: RollProps['record']; readonly system: UnitSystem }) {
  const drift = driftOf(record);
  const views = drift.ok
    ? chartsOf(record, drift.value)
    : AXES.map((axis) => ({
        title: axis === 'along' ? 'Along' : 'Across',
        ...{ stations: stationsOf(record, axis), band: [], readToMm: 0, endMm: rollEndMm(record.roll) },
        toleranceMm: record.roll.toleranceMm,
      }));
  return views.map((view) => <DriftChart key={view.title} view={view} system={system} />);
}

/** The log of a run: what is due, what to do, and the chart as it grows. */
export function LogPage({ record, system, nav }: RollProps) {
  const { roll, readings } = record;
  const advice = adviceWords(adviceOf(record), system);
  const [due, ...later] = duePieces({ record });
  const isClosed = roll.state === 'ended';
  return (
    <>
      <PageHeading>{advice.title}</PageHeading>
      {nav}
      <p className={advice.kind === 'stop' ? 'caution' : 'lead'} role="status">
        <AdviceMark kind={advice.kind} /> {advice.words}
      </p>
      <div className="two">
        <div className="stay">
          <Charts record={record} system={system} />
        </div>
        <div>
          {!isClosed && due !== undefined && (
            <>
              <PieceEntry
                key={`${due} ${readings.size}`}
                rollId={roll.id}
                pieceNo={due}
                sides={roll.sides}
                system={system}
              />
              <p className="quiet">
                {`Stop the machine before you measure: hands off roll and rollers while it moves. ${later.length} more pieces are due after this one, every ${roll.everyNth}th, allowed ${formatSize(roll.toleranceMm, system)}.`}
              </p>
              {record.isSimulated && <StandInButton rollId={roll.id} words="Let the stand-in measure it" />}
              <details>
                <summary>Several pieces as a list, or a CSV file</summary>
                <StationListForm
                  rollId={roll.id}
                  sides={roll.sides}
                  stationNos={[due, ...later].slice(0, MOST_LISTED)}
                  word="piece"
                  typedUnit={system}
                />
              </details>
            </>
          )}
          {!isClosed && due === undefined && <p>All pieces that were due are measured.</p>}
          <CloseRoll rollId={roll.id} isClosed={isClosed} />
        </div>
      </div>
    </>
  );
}
