import Link from 'next/link';
import type { Verdict } from '@/core/verdict/bound';
import { analyse } from '@/server/services/analysis';
import { verdictLines } from '@/server/services/map-words';
import { currentSets, latestCorrection, planCut } from '@/server/services/record';
import { isPenAlone } from '@/server/services/analysis';
import { ActionButton } from '@/ui/calibration/ActionButton';
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
import { PageHeading } from '@/ui/components/PageHeading';

const HEADLINES = { pass: 'In register', fail: 'Still out', cannot_tell: 'Cannot tell yet' } as const;

interface DeedsProps {
  readonly id: string;
  readonly verdict: Verdict;
  readonly isCheck: boolean;
  readonly isKept: boolean;
  /** Set where a pen drew the sheet and knife against pen is not known: such a verdict is not kept. */
  readonly knifeHref: string | null;
}

/** A verdict that is no pass, written down all the same. */
function KeepVerdict({ id, verdict, isOffered }: Pick<DeedsProps, 'id' | 'verdict'> & { readonly isOffered: boolean }) {
  if (verdict === 'pass' || !isOffered) return null;
  return <ActionButton action="judge" calibrationId={id} words="Keep this verdict" isMain={verdict === 'fail'} />;
}

/** What can be done about a verdict; the one to do next is dark. */
function VerdictDeeds({ id, verdict, isCheck, isKept, knifeHref }: DeedsProps) {
  const isPass = verdict === 'pass';
  return (
    <p className="d-flex flex-wrap gap-2">
      {isPass && !isCheck && (
        <ActionButton
          action="judge"
          calibrationId={id}
          words="Keep it in the history"
          isMain
          href={`/calibrations/${id}/save`}
        />
      )}
      {knifeHref ? (
        <Link className="btn btn-primary" href={knifeHref} prefetch={false}>
          Check the knife with its own sheet
        </Link>
      ) : (
        <KeepVerdict id={id} verdict={verdict} isOffered={!isCheck && !isKept} />
      )}
      {(verdict === 'cannot_tell' || isCheck) && (
        <ActionButton
          action="another-sheet"
          calibrationId={id}
          words="Another load on a fresh sheet"
          isMain={!knifeHref}
          href={`/calibrations/${id}/print`}
        />
      )}
      {!isPass && (
        <Link
          className={`btn ${verdict === 'fail' && isKept ? 'btn-primary' : 'btn-quiet'}`}
          href={`/calibrations/${id}/settings`}
          prefetch={false}
        >
          Correct again from these readings
        </Link>
      )}
      <Link className="btn btn-quiet" href={`/calibrations/${id}/map`} prefetch={false}>
        See the map
      </Link>
      <Link className="btn btn-quiet" href={`/calibrations/${id}/confirm?read=again`} prefetch={false}>
        Read again
      </Link>
    </p>
  );
}

function VerdictPage({ record, system }: StepProps) {
  const { id, toleranceMm } = record.calibration;
  const correction = latestCorrection(record);
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
  const isCheck = !currentSets(record).some((s) => s.purpose === 'confirm');
  const kept = record.confirmations.filter((c) => c.correctionId === correction?.id);
  const isKept = kept.some((c) => c.verdict === a.verdict);
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
              : lines.advice}
          </p>
          <LooksInDispute id={id} repeats={repeats} />
          <VerdictDeeds
            id={id}
            verdict={a.verdict}
            isCheck={isCheck}
            isKept={isKept}
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
      <PageHeading className="station-title">Read the confirming cut, as if you had never seen it</PageHeading>
      <FineStation
        record={record}
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
