import { analyse } from '@/server/services/analysis';
import { verdictLines } from '@/server/services/map-words';
import { verdictView } from '@/server/services/next-deed';
import { currentSets, onSheet, planCut } from '@/server/services/record';
import { isPenAlone } from '@/server/services/analysis';
import { PlumbGauge } from '@/ui/components/PlumbGauge';
import { CutPage } from './cut-page';
import { isRead } from '@/server/services/looks';
import { FineStation, OtherWays } from './fine-station';
import { AnalysisMap } from './analysis-map';
import { MovedSince } from './moved-since';
import { OddReadings } from './odd-readings';
import { LooksInDispute, SecondLook } from './second-look';
import { repeatsView } from '@/server/services/repeats';
import type { StepProps } from './step-props';
import { moveWords, VerdictDeeds } from './verdict-deeds';
import { PageHeading } from '@/ui/components/PageHeading';

const HEADLINES = { pass: 'In register', fail: 'Still out', cannot_tell: 'Cannot tell yet' } as const;

function VerdictPage({ record, system }: StepProps) {
  const { id, toleranceMm } = record.calibration;
  const analysed = analyse(record);
  if (!analysed.ok)
    return (
      <PageHeading>
        There are not enough readings for a verdict. Read at least one figure across and one along.
      </PageHeading>
    );
  const a = analysed.value;
  const repeats = repeatsView(record, system);
  const lines = verdictLines(record, a, system);
  const { isCheck, isKept, best, deed } = verdictView(record, a);
  return (
    <>
      <PageHeading>
        {isCheck ? `Settings check: ${HEADLINES[a.verdict].toLowerCase()} on the same load` : HEADLINES[a.verdict]}
      </PageHeading>
      <div className="two">
        <div className="stay">
          <AnalysisMap record={record} analysis={a} />
        </div>
        <div>
          <PlumbGauge worstMm={a.bounds.worstMm} toleranceMm={toleranceMm} size={110} />
          <MovedSince analysis={a} isVerdict />
          <OddReadings record={record} system={system} analysis={a} isCounted={false} />
          <p className="lead">{lines.constant}</p>
          <p className="lead">{lines.next}</p>
          <p>
            {isCheck
              ? 'This cut was made without a fresh load, so it says nothing of the next job. Unload, load again, and cut another set to confirm.'
              : (a.verdict === 'cannot_tell' || deed === 'wider-limit') && !isPenAlone(a)
                ? moveWords(deed === 'wider-limit' ? { move: deed, upperMm: a.bounds.upperMm } : best, system)
                : lines.advice}
          </p>
          <LooksInDispute id={id} repeats={repeats} />
          <VerdictDeeds
            id={id}
            verdict={a.verdict}
            isCheck={isCheck}
            isKept={isKept}
            deed={deed}
            setupId={record.calibration.setupId}
            knifeHref={isPenAlone(a) ? `/setups/${record.calibration.setupId}` : null}
          />
          {isKept && <p role="status">This verdict is kept.</p>}
          {a.verdict === 'cannot_tell' && <SecondLook record={record} system={system} analysis={a} repeats={repeats} />}
        </div>
      </div>
    </>
  );
}

/** Cut, read blind, judge: whichever comes next. */
export function ConfirmPage(props: StepProps) {
  const { record, system, query } = props;
  const set = currentSets(record).at(-1);
  const isCut = set !== undefined && set.purpose !== 'before';
  const needsCut = !isCut || (query.cut === 'again' && !planCut(record, true).needsNewSheet);
  if (needsCut) return <CutPage {...props} />;
  if (isRead(record, set) && query.read !== 'again') return <VerdictPage {...props} />;
  return (
    <>
      <p className="quiet mb-0">{`Sheet ${onSheet(record, set.sheetNo).code}, cut set ${set.setNo}`}</p>
      <PageHeading className="station-title">Read the confirming cut, as if you had never seen it</PageHeading>
      <FineStation
        record={onSheet(record, set.sheetNo)}
        set={set}
        asked={{
          system,
          isBlind: true,
          lookNo: 1,
          start: null,
          next: { href: `/calibrations/${record.calibration.id}/confirm`, words: 'All read: the verdict' },
        }}
      />
      <OtherWays record={record} set={set} lookNo={1} />
    </>
  );
}
