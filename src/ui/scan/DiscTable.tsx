'use client';

import { isMeasured } from '@/core/scan/disc-measure';
import type { ScannedDisc } from '@/core/scan/combine-scans';
import type { UnitSystem } from '@/core/units/length';
import type { OwnDisc } from './scan-view';
import { fineLength, SIDE_95 } from './scan-words';
import { figureWord, stateWords } from './state-words';

interface Props {
  readonly own: readonly OwnDisc[];
  readonly discs: readonly ScannedDisc[];
  readonly leftOut: ReadonlySet<string>;
  readonly chosen: string | null;
  readonly system: UnitSystem;
  readonly onChoose: (key: string) => void;
  readonly onLeaveOut: (key: string, isOut: boolean) => void;
}

interface RowProps extends Omit<Props, 'own' | 'discs' | 'leftOut' | 'chosen'> {
  readonly own: OwnDisc;
  readonly disc: ScannedDisc;
  readonly isOut: boolean;
  readonly isChosen: boolean;
  readonly hasEye: boolean;
}

function Row({ own, disc, isOut, isChosen, hasEye, system, onChoose, onLeaveOut }: RowProps) {
  const doubt = Math.max(
    Math.hypot(disc.acrossSdMm, disc.acrossSharedMm),
    Math.hypot(disc.alongSdMm, disc.alongSharedMm),
  );
  const eye = (mm: number | null): string => (mm === null ? '' : ` (${fineLength(mm, system, true)})`);
  const { name, todo } = stateWords(disc.state, own.figure.cutShape);
  return (
    <tr className={[isChosen ? 'current' : '', isOut ? 'left-out' : ''].join(' ')}>
      <td>
        <button
          type="button"
          className="btn-plain"
          aria-pressed={isChosen}
          onClick={() => {
            onChoose(own.key);
          }}
        >
          {own.spotNo}
        </button>
      </td>
      <td>{name}</td>
      {isMeasured(disc.state) ? (
        <>
          <td className="figures">{`${fineLength(disc.acrossMm, system, true)}${hasEye ? eye(own.eyeMm.across) : ''}`}</td>
          <td className="figures">{`${fineLength(disc.alongMm, system, true)}${hasEye ? eye(own.eyeMm.along) : ''}`}</td>
          <td className="figures">{fineLength(SIDE_95 * doubt, system)}</td>
          <td>
            <input
              type="checkbox"
              className="form-check-input"
              checked={!isOut}
              aria-label={`Count spot ${own.spotNo}`}
              onChange={(event) => {
                onLeaveOut(own.key, !event.target.checked);
              }}
            />
          </td>
        </>
      ) : (
        <td colSpan={4} className="quiet">
          {todo}
        </td>
      )}
    </tr>
  );
}

/** The set's discs as all scans together tell them; any of them can be left out and put back. */
export function DiscTable({ own, discs, leftOut, chosen, system, onChoose, onLeaveOut }: Props) {
  const hasEye = own.some(({ eyeMm }) => eyeMm.across !== null || eyeMm.along !== null);
  const unit = system === 'mm' ? 'mm' : 'in';
  const word = figureWord(own[0]?.figure.cutShape);
  return (
    <table className="plain scan-table" aria-label={`${word.slice(0, 1).toUpperCase()}${word.slice(1)}s of this cut`}>
      <thead>
        <tr>
          <th>spot</th>
          <th>{word}</th>
          <th>{`across, ${unit}`}</th>
          <th>{`along, ${unit}`}</th>
          <th>{'\u00b1 95 %'}</th>
          <th>count</th>
        </tr>
      </thead>
      <tbody>
        {own.map((o) => {
          const disc = discs.find((d) => d.key === o.key);
          return (
            disc && (
              <Row
                key={o.key}
                own={o}
                disc={disc}
                isOut={leftOut.has(o.key)}
                isChosen={chosen === o.key}
                {...{ hasEye, system, onChoose, onLeaveOut }}
              />
            )
          );
        })}
      </tbody>
      {hasEye && <caption className="quiet">In brackets: what the eye read at the same spot.</caption>}
    </table>
  );
}
