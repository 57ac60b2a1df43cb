import Link from 'next/link';
import { formatLength, formatSize, type UnitSystem } from '@/core/units/length';
import { backAgainstFront, type BackAgainstFront } from '@/server/services/two-faces';
import { ActionButton } from '@/ui/calibration/ActionButton';
import { ErrorMap } from '@/ui/map/ErrorMap';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

const sideWords = (x: number): string => (x >= 0 ? 'right' : 'left');
const endWords = (y: number): string => (y >= 0 ? 'up, the way the arrow points' : 'down, against the arrow');

function shiftWords({ fit }: BackAgainstFront, system: UnitSystem): string {
  const { tx, ty } = fit.map;
  return `${formatLength(Math.abs(tx), system)} to the ${sideWords(tx)} and ${formatLength(Math.abs(ty), system)} ${endWords(ty)}`;
}

/** How the back's print lies against the front's, and what can be done about it. */
export function TwoFacesPage({ record, system }: StepProps) {
  const { id, setupId, state, toleranceMm } = record.calibration;
  const told = backAgainstFront(record);
  if (!told) {
    return (
      <>
        <PageHeading>Read the discs on both faces first</PageHeading>
        <Link className="btn btn-primary" href={`/calibrations/${id}/read`} prefetch={false}>
          Read them
        </Link>
      </>
    );
  }
  const { fit, bounds } = told;
  const isGood = bounds.upperMm <= toleranceMm;
  return (
    <>
      <PageHeading>{`The back is out by ${formatLength(bounds.worstMm, system)} at the worst corner, ${formatSize(toleranceMm, system)} allowed`}</PageHeading>
      <div className="two">
        <div className="stay">
          <ErrorMap
            definition={record.definition}
            code={record.code}
            map={fit.map}
            covariance={[...fit.covariance]}
            corners={record.corners}
            worstCorner={bounds.worstCorner}
            largestMm={bounds.upperMm}
            turnDeg={0}
            label={`Back against front: worst corner ${bounds.worstMm.toFixed(2)} mm`}
            arrows={{ words: 'Arrows from the front\u2019s print to where the back\u2019s lies', colour: 'var(--ink)' }}
          />
        </div>
        <div>
          <p>{`Seen from the front, the back\u2019s print lies ${shiftWords(told, system)}. With 95 % confidence the worst corner is out by less than ${formatLength(bounds.upperMm, system)}.`}</p>
          {isGood ? (
            <p>Good enough: change nothing.</p>
          ) : (
            <>
              <h2>Three ways out</h2>
              <ol className="steps">
                <li>
                  {`Move the back\u2019s print in the printer\u2019s own alignment of the two sides: by as much the other way. Seen from the back, left and right change places.`}
                </li>
                <li>Move the art of the back in its file by as much, and mark the file so.</li>
                <li>{`Change nothing: a bleed or border of ${formatLength(bounds.upperMm, system)} on the back hides it.`}</li>
              </ol>
            </>
          )}
          <p className="quiet">
            This is one sheet. How the paper was turned and fed differs from sheet to sheet: a second sheet tells how
            much.
          </p>
          {fit.untold.length > 0 && <p className="quiet">{`These readings cannot tell: ${fit.untold.join(', ')}.`}</p>}
          <p className="d-flex flex-wrap gap-2">
            {state === 'saved' ? (
              <Link className="btn btn-primary" href={`/setups/${setupId}`} prefetch={false}>
                This is kept. Back to the machine
              </Link>
            ) : (
              <>
                <ActionButton action="keep-faces" calibrationId={id} words="Keep it" isMain />
                <ActionButton
                  action="another-sheet"
                  calibrationId={id}
                  words="Measure another sheet"
                  href={`/calibrations/${id}/print`}
                />
              </>
            )}
          </p>
        </div>
      </div>
    </>
  );
}
