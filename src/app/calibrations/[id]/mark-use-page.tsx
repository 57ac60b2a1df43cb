import Link from 'next/link';
import { markPowers } from '@/core/shop/marks';
import { keptUse, type MarkUseFinding } from '@/core/shop/mark-use';
import { MARK_USE_WORDS } from '@/core/shop/words';
import { formatFixed } from '@/core/units/length';
import { analyse } from '@/server/services/analysis';
import { database } from '@/server/services/database';
import { toldUse } from '@/server/services/mark-use';
import { ActionButton } from '@/ui/calibration/ActionButton';
import { AnalysisMap } from './analysis-map';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

function headline(finding: MarkUseFinding): string {
  switch (finding.kind) {
    case 'told':
      return `This machine takes from its marks: ${MARK_USE_WORDS[keptUse(finding.uses) ?? 'unknown']}`;
    case 'too-rough':
      return 'These readings do not part what the marks may be used for';
    case 'unexplained':
      return 'The cut moved in a way that no use of the marks explains';
  }
}

function Told({ finding, isOurs }: { readonly finding: MarkUseFinding; readonly isOurs: boolean }) {
  if (finding.kind === 'unexplained')
    return (
      <p className="caution">
        {isOurs
          ? 'Were the marks read at this load, and all four of them? Is each figure read as it looks? '
          : 'Is each figure read as it looks? Was the first file cut, not the copy? Were the marks moved by what was typed, and nothing else? '}
        Check, print another sheet, and cut again.
      </p>
    );
  if (finding.kind === 'too-rough')
    return (
      <p>
        {`Left are: ${finding.uses.map((u) => MARK_USE_WORDS[u]).join('; ')}. Read more figures, or move the marks further.`}
      </p>
    );
  const use = keptUse(finding.uses) ?? 'unknown';
  const { putsRight, remains } = markPowers(use);
  return (
    <>
      <p>
        {`With every load it puts right: ${putsRight.join(', ') || 'nothing'}. Left for a calibration: ${remains.join(', ') || 'only what is the same with every load'}.`}
      </p>
      {finding.uses.length > 1 && (
        <p className="quiet">
          {`Not parted by this sheet: ${finding.uses.map((u) => MARK_USE_WORDS[u]).join('; ')}. Kept is the one that is safe to rely on.`}
        </p>
      )}
      {!isOurs && (use === 'shift_rotation' || use === 'shift') && (
        <p className="caution">
          Cutting the copy by mistake looks the same. If you are not sure that the first file was cut, do it once more.
        </p>
      )}
    </>
  );
}

/** What a sheet with moved marks tells of the machine. */
export async function MarkUsePage({ record }: StepProps) {
  const { id, setupId, state, route } = record.calibration;
  const told = await toldUse(database(), record);
  if (!told) {
    return (
      <>
        <PageHeading>Read the sheet first: spots across and along, on all sides</PageHeading>
        <Link className="btn btn-primary" href={`/calibrations/${id}/read`} prefetch={false}>
          Read it
        </Link>
      </>
    );
  }
  const { finding, reference } = told;
  const map = analyse(record, false);
  return (
    <>
      <PageHeading>{headline(finding)}</PageHeading>
      <div className="two">
        <div className="stay">{map.ok && <AnalysisMap record={record} analysis={map.value} />}</div>
        <div>
          <Told finding={finding} isOurs={route === 'D'} />
          {finding.kind === 'told' && state !== 'saved' && (
            <ActionButton action="keep-marks" calibrationId={id} words="Keep what was learned" isMain />
          )}
          {finding.kind !== 'told' && (
            <ActionButton
              action="another-sheet"
              calibrationId={id}
              words="Print another sheet"
              isMain
              href={`/calibrations/${id}/print`}
            />
          )}
          {state === 'saved' && (
            <p role="status">
              This is kept.{' '}
              <Link className="btn btn-primary" href={`/setups/${setupId}`} prefetch={false}>
                Back to the machine
              </Link>
            </p>
          )}
          <details className="mt-3">
            <summary>How was this worked out?</summary>
            <p>
              {`The map of this sheet minus that of sheet ${reference.record.code}, cut with the same settings, is compared with what each use of the marks would do to marks moved so. The figure is the misfit (chi-square, 4 degrees of freedom; 13.8 above the best, a use is a thousand times less likely and ruled out).`}
            </p>
            <table className="plain">
              <tbody>
                {finding.fits.map((f) => (
                  <tr key={f.use}>
                    <td>{MARK_USE_WORDS[f.use]}</td>
                    <td className="figures">{f.chiSquare > 999 ? 'over 999' : formatFixed(f.chiSquare, 1)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </details>
        </div>
      </div>
    </>
  );
}
