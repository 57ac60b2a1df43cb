import Link from 'next/link';
import { formatLength } from '@/core/units/length';
import { analyse, isPenAlone, type Analysis } from '@/server/services/analysis';
import { explanationsOf } from '@/server/services/explanations';
import { faultWords, mapNotes, partViews, PEN_ALONE } from '@/server/services/map-words';
import { isRead } from '@/server/services/looks';
import { canMoveFile, currentSets, latestCorrection } from '@/server/services/record';
import { roughQuestion } from '@/server/services/rough';
import { HowWorkedOut } from '@/ui/map/HowWorkedOut';
import { AnalysisMap } from './analysis-map';
import { MarkUsePage } from './mark-use-page';
import { MovedSince } from './moved-since';
import { OddReadings } from './odd-readings';
import { LooksInDispute, SecondLook } from './second-look';
import { repeatsView } from '@/server/services/repeats';
import type { StepProps } from './step-props';
import { mapHeadline } from '@/server/services/way-out';
import { TwoFacesPage } from './two-faces-page';
import { WayButtons } from './way-buttons';
import { WhichWayPage } from './which-way-page';
import { PageHeading } from '@/ui/components/PageHeading';

const ERRORS = {
  'no-readings': 'Nothing has been read yet.',
  'axis-missing': 'Readings across and along are both needed: one of them is missing.',
  'not-finite': 'A reading holds no number.',
} as const;

/** Drawn with a pen: what that does not say of the knife. */
function PenNotice({ analysis }: { readonly analysis: Analysis }) {
  return isPenAlone(analysis) && <p className="notice">{PEN_ALONE}</p>;
}

interface WaysProps extends Pick<StepProps, 'record' | 'system'> {
  readonly analysis: Analysis;
}

/** Settings, the file, or a border: always the three, each with what it leaves. */
function ThreeWays({ record, system, analysis: a }: WaysProps) {
  return (
    <>
      <h2>Three ways out</h2>
      <ol className="steps">
        <li>
          {a.plan.changes.length > 0
            ? `Set on the machine: brings the worst corner to ${formatLength(a.afterSettingsMm, system)}.`
            : a.unknownDirection.length > 0
              ? 'Set on the machine: first find which way + goes.'
              : 'Settings: none here can put this right.'}
        </li>
        <li>
          {canMoveFile(record)
            ? `Move the cut in the file: what is left is the doubt of the map itself, up to ${formatLength(a.bounds.upperMm - a.bounds.worstMm, system)} now.`
            : 'The file: this program traces its own lines, so they cannot be moved.'}
        </li>
        <li>
          {isPenAlone(a)
            ? 'Change nothing: what border hides it cannot be told while the knife\u2019s own shift is not known.'
            : `Change nothing: a white border or bleed under ${formatLength(a.next.q95Mm, system)} will show it.`}
        </li>
      </ol>
    </>
  );
}

/** What is the same with every load and what is not, as far as the loads so far can tell; and the way to one more. */
function Loads({ record, system, analysis: a, isAfter }: WaysProps & { readonly isAfter: boolean }) {
  return (
    <section aria-label="What changes with every load" className="mt-3">
      {a.loads.length > 1 && (
        <>
          <h2>What changes with every load</h2>
          <p>{faultWords(a)}</p>
          <table className="plain">
            <thead>
              <tr>
                <th>load</th>
                <th>apart from the mean, at its worst corner</th>
              </tr>
            </thead>
            <tbody>
              {a.loads.map((l) => (
                <tr key={l.loadNo}>
                  <td>{l.loadNo}</td>
                  <td className="figures">{formatLength(l.departureMm, system)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {!isAfter && (
        <p className="mt-2">
          <Link className="btn btn-quiet" href={`/calibrations/${record.calibration.id}/cut`} prefetch={false}>
            Cut another load first
          </Link>
          <span className="quiet d-block">Another load tells what changes each time from what does not.</span>
        </p>
      )}
    </section>
  );
}

export function MapPage(props: StepProps) {
  switch (props.record.calibration.kind) {
    case 'which_way':
      return <WhichWayPage {...props} />;
    case 'mark_use':
      return <MarkUsePage {...props} />;
    case 'two_faces':
      return <TwoFacesPage {...props} />;
    case 'quick':
    case 'full':
      return <ErrorMapPage {...props} />;
  }
}

/** Every figure was looked at and none could be read. */
function isOutOfReach(record: StepProps['record']): boolean {
  const set = currentSets(record).at(-1);
  return set !== undefined && isRead(record, set);
}

/** Why there is no map, and the way on. */
function NoMap({ record, kind }: Pick<StepProps, 'record'> & { readonly kind: keyof typeof ERRORS }) {
  const { id } = record.calibration;
  return (
    <>
      <PageHeading>{`No map yet. ${ERRORS[kind]}`}</PageHeading>
      {isOutOfReach(record) && (
        <>
          <p>
            No figure could be read: the cut lies beside them, or they are damaged. Bring the cut near by the
            machine&rsquo;s own registration first. Its manual says how. Then cut again.
          </p>
          <Link className="btn btn-primary" href={`/calibrations/${id}/cut`} prefetch={false}>
            Cut again
          </Link>{' '}
        </>
      )}
      <Link
        className={`btn ${isOutOfReach(record) ? 'btn-quiet' : 'btn-primary'}`}
        href={`/calibrations/${id}/read?look=fine`}
        prefetch={false}
      >
        Read the sheet
      </Link>
    </>
  );
}

function ErrorMapPage({ record, system, query }: StepProps) {
  const { id } = record.calibration;
  const keepAll = query.keep === 'all';
  const analysed = analyse(record, keepAll);
  if (!analysed.ok) return <NoMap record={record} kind={analysed.error.kind} />;
  const a = analysed.value;
  const repeats = repeatsView(record, system);
  const question = roughQuestion(record, a, system);
  const isAfter = latestCorrection(record)?.objective !== undefined && latestCorrection(record)?.objective !== 'rough';
  return (
    <>
      <PageHeading>{mapHeadline(record, a, system)}</PageHeading>
      <div className="two">
        <div className="stay">
          <AnalysisMap record={record} analysis={a} />
        </div>
        <div>
          <MovedSince analysis={a} />
          <OddReadings record={record} system={system} analysis={a} isCounted={keepAll}>
            {', or '}
            <Link href={`/calibrations/${id}/map${keepAll ? '' : '?keep=all'}`} prefetch={false}>
              {keepAll ? 'leave it out' : 'count it all the same'}
            </Link>
          </OddReadings>
          <PenNotice analysis={a} />
          <LooksInDispute id={id} repeats={repeats} />
          {question && (
            <p className="notice">
              {`${question} `}
              <Link href={`/calibrations/${id}/read?look=rough`} prefetch={false}>
                The grids
              </Link>
              {', '}
              <Link href={`/calibrations/${id}/read?look=fine`} prefetch={false}>
                the figures
              </Link>
            </p>
          )}
          <ThreeWays record={record} system={system} analysis={a} />
          {!isAfter && <WayButtons record={record} analysis={a} keepAll={keepAll} />}
          {isAfter && (
            <p className="d-flex gap-2 flex-wrap">
              <Link className="btn btn-primary" href={`/calibrations/${id}/confirm`} prefetch={false}>
                See the verdict
              </Link>
              <Link
                className="btn btn-quiet"
                href={`/calibrations/${id}/settings${keepAll ? '?keep=all' : ''}`}
                prefetch={false}
              >
                Correct again
              </Link>
            </p>
          )}
          <Loads record={record} system={system} analysis={a} isAfter={isAfter} />
          <SecondLook record={record} system={system} analysis={a} repeats={repeats} />
          {mapNotes(a, system).map((n) => (
            <p key={n} className="quiet">
              {n}
            </p>
          ))}
          <details>
            <summary>The figures</summary>
            <table className="plain">
              <thead>
                <tr>
                  <th>part</th>
                  <th>value</th>
                  <th>at the worst corner, 95 %</th>
                  <th>to do</th>
                </tr>
              </thead>
              <tbody>
                {partViews(a, system).map((p) => (
                  <tr key={p.name}>
                    <td>{p.name}</td>
                    <td className="figures">{p.value}</td>
                    <td className="figures">{p.effect}</td>
                    <td>{p.decision}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </details>
          <HowWorkedOut explanations={explanationsOf(record, a)} />
        </div>
      </div>
    </>
  );
}
