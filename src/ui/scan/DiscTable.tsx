'use client';

import { isMeasured } from '@/core/scan/disc-measure';
import type { ScannedDisc } from '@/core/scan/combine-scans';
import type { CutShape } from '@/core/target/coded-figure';
import { formatFineNumber, unitWord, type UnitSystem } from '@/core/units/length';
import { SIDE_95 } from './scan-words';
import { figureWord, stateWords } from './state-words';

/** A disc of the table, and what it is called there. */
export interface TableDisc {
  readonly disc: ScannedDisc;
  /** "3" of a sheet's spots, "12 left" of a roll's stations. */
  readonly label: string;
  /** What the eye read at the same place, mm; null where it did not, or must not be told. */
  readonly eyeMm: { readonly across: number | null; readonly along: number | null };
  /** What to do where it tells nothing. */
  readonly todo: string;
}

interface Props {
  readonly rows: readonly TableDisc[];
  readonly label: string;
  /** What its places are called. */
  readonly place: 'spot' | 'station';
  readonly cutShape: CutShape;
  readonly leftOut: ReadonlySet<string>;
  readonly chosen: string | null;
  readonly system: UnitSystem;
  readonly onChoose: (key: string) => void;
  readonly onLeaveOut: (key: string, isOut: boolean) => void;
}

interface RowProps extends Omit<Props, 'rows' | 'label' | 'leftOut' | 'chosen'> {
  readonly row: TableDisc;
  readonly isOut: boolean;
  readonly isChosen: boolean;
}

function Measured({ row: { disc, label, eyeMm }, isOut, place, system, onLeaveOut }: RowProps) {
  const doubt = Math.max(
    Math.hypot(disc.acrossSdMm, disc.acrossSharedMm),
    Math.hypot(disc.alongSdMm, disc.alongSharedMm),
  );
  const eye = (mm: number | null): string => (mm === null ? '' : ` (${formatFineNumber(mm, system, true)})`);
  return (
    <>
      <td className="figures">{`${formatFineNumber(disc.acrossMm, system, true)}${eye(eyeMm.across)}`}</td>
      <td className="figures">{`${formatFineNumber(disc.alongMm, system, true)}${eye(eyeMm.along)}`}</td>
      <td className="figures">{formatFineNumber(SIDE_95 * doubt, system)}</td>
      <td>
        <input
          type="checkbox"
          className="form-check-input"
          checked={!isOut}
          aria-label={`Count ${place} ${label}`}
          onChange={(event) => {
            onLeaveOut(disc.key, !event.target.checked);
          }}
        />
      </td>
    </>
  );
}

function Row(props: RowProps) {
  const { row, isOut, isChosen, cutShape, onChoose } = props;
  const { disc, label, todo } = row;
  return (
    <tr className={[isChosen ? 'current' : '', isOut ? 'left-out' : ''].join(' ')}>
      <td>
        <button
          type="button"
          className="btn-plain"
          aria-pressed={isChosen}
          onClick={() => {
            onChoose(disc.key);
          }}
        >
          {label}
        </button>
      </td>
      <td>{stateWords(disc.state, cutShape).name}</td>
      {isMeasured(disc.state) ? (
        <Measured {...props} />
      ) : (
        <td colSpan={4} className="quiet">
          {todo}
        </td>
      )}
    </tr>
  );
}

/** Discs as all scans together tell them; any of them can be left out and put back. */
export function DiscTable({ rows, label, leftOut, chosen, ...rest }: Props) {
  const hasEye = rows.some(({ eyeMm }) => eyeMm.across !== null || eyeMm.along !== null);
  const unit = unitWord(rest.system);
  return (
    <table className="plain scan-table" aria-label={label}>
      <thead>
        <tr>
          <th>{rest.place}</th>
          <th>{figureWord(rest.cutShape)}</th>
          <th>{`across, ${unit}`}</th>
          <th>{`along, ${unit}`}</th>
          <th>{'\u00b1 95 %'}</th>
          <th>count</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <Row
            key={row.disc.key}
            row={row}
            isOut={leftOut.has(row.disc.key)}
            isChosen={chosen === row.disc.key}
            {...rest}
          />
        ))}
      </tbody>
      {hasEye && <caption className="quiet">In brackets: what the eye read at the same {rest.place}.</caption>}
    </table>
  );
}
