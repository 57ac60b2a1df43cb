'use client';

import type { ScannedDisc } from '@/core/scan/combine-scans';
import { isMeasured } from '@/core/scan/disc-measure';
import type { UnitSystem } from '@/core/units/length';
import { fineLength, SIDE_95 } from '../scan/scan-words';
import { stateWords } from '../scan/state-words';
import { pieceTodo } from './piece-words';

interface Props {
  readonly discs: readonly ScannedDisc[];
  readonly leftOut: ReadonlySet<string>;
  readonly chosen: string | null;
  readonly system: UnitSystem;
  readonly onChoose: (place: string) => void;
  readonly onLeaveOut: (place: string, isOut: boolean) => void;
}

interface RowProps extends Omit<Props, 'discs' | 'leftOut' | 'chosen'> {
  readonly disc: ScannedDisc;
  readonly isOut: boolean;
  readonly isChosen: boolean;
}

function Row({ disc, isOut, isChosen, system, onChoose, onLeaveOut }: RowProps) {
  const { key, state } = disc;
  const { name } = stateWords(state, 'hole');
  const doubt = Math.max(
    Math.hypot(disc.acrossSdMm, disc.acrossSharedMm),
    Math.hypot(disc.alongSdMm, disc.alongSharedMm),
  );
  return (
    <tr className={[isChosen ? 'current' : '', isOut ? 'left-out' : ''].join(' ')}>
      <td>
        <button
          type="button"
          className="btn-plain"
          aria-pressed={isChosen}
          onClick={() => {
            onChoose(key);
          }}
        >
          {key}
        </button>
      </td>
      <td>{name}</td>
      {isMeasured(state) ? (
        <>
          <td className="figures">{fineLength(disc.acrossMm, system, true)}</td>
          <td className="figures">{fineLength(disc.alongMm, system, true)}</td>
          <td className="figures">{fineLength(SIDE_95 * doubt, system)}</td>
          <td>
            <input
              type="checkbox"
              className="form-check-input"
              checked={!isOut}
              aria-label={`Count station ${key}`}
              onChange={(event) => {
                onLeaveOut(key, !event.target.checked);
              }}
            />
          </td>
        </>
      ) : (
        <td colSpan={4} className="quiet">
          {pieceTodo(state)}
        </td>
      )}
    </tr>
  );
}

/** Discs of pieces as all scans together tell them, along the roll; any of them can be left out and put back. */
export function PieceTable({ discs, leftOut, chosen, ...rest }: Props) {
  const unit = rest.system === 'mm' ? 'mm' : 'in';
  return (
    <table className="plain scan-table" aria-label="Stations in these scans">
      <thead>
        <tr>
          <th>station</th>
          <th>disc</th>
          <th>{`across, ${unit}`}</th>
          <th>{`along, ${unit}`}</th>
          <th>{'\u00b1 95 %'}</th>
          <th>count</th>
        </tr>
      </thead>
      <tbody>
        {discs.map((disc) => (
          <Row key={disc.key} disc={disc} isOut={leftOut.has(disc.key)} isChosen={chosen === disc.key} {...rest} />
        ))}
      </tbody>
    </table>
  );
}
