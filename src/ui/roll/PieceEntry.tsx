'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { slotName, type StripSide } from '@/core/target/roll-strip';
import { AXES, type Axis } from '@/core/target/wedge';
import type { UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { useStations, type StationAnswer } from './use-stations';

interface Props {
  readonly rollId: string;
  readonly pieceNo: number;
  readonly sides: readonly StripSide[];
  readonly system: UnitSystem;
}

const keyOf = (side: StripSide, axis: Axis): string => `${side} ${axis}`;

/** The piece that is due: how far its cut is off, at each side. */
export function PieceEntry({ rollId, pieceNo, sides, system }: Props) {
  const router = useRouter();
  const keeper = useStations(rollId, {});
  const [typed, setTyped] = useState<Readonly<Record<string, number | null>>>({});
  const [isSent, setSent] = useState(false);
  const isIn = (side: StripSide, axis: Axis): boolean =>
    keeper.kept[slotName({ stationNo: pieceNo, side, axis })] !== undefined;
  const read = sides.flatMap((side) =>
    AXES.flatMap((axis) => {
      const readingMm = typed[keyOf(side, axis)] ?? null;
      return readingMm === null ? [] : [{ side, axis, readingMm }];
    }),
  );
  const isKept = isSent && keeper.unsaved === 0 && read.every(({ side, axis }) => isIn(side, axis));
  useEffect(() => {
    if (isKept) router.refresh();
  }, [isKept, router]);
  return (
    <section aria-label={`Piece ${pieceNo}`}>
      <h2>{`Measure piece ${pieceNo}`}</h2>
      <p className="quiet">
        Half the difference of opposite borders is how far the cut is off: across, right is plus; along, away from the
        leading edge is plus.
      </p>
      {sides.map((side) => (
        <div key={side} className="d-flex flex-wrap gap-3">
          {AXES.map((axis) => (
            <LengthField
              key={axis}
              label={`${sides.length > 1 ? `${side}, ` : ''}${axis}`}
              system={system}
              isOptional
              onChange={(mm) => {
                setTyped((now) => ({ ...now, [keyOf(side, axis)]: mm }));
              }}
            />
          ))}
        </div>
      ))}
      <button
        type="button"
        className="btn btn-primary"
        disabled={read.length === 0 || keeper.unsaved > 0 || isKept}
        onClick={() => {
          setSent(true);
          keeper.keep(
            ...read.map(({ side, axis, readingMm }): StationAnswer => ({
              ...{ rollId, stationNo: pieceNo, side, axis, readingMm },
              method: 'list',
              state: 'read',
            })),
          );
        }}
      >
        Save piece
      </button>
      <p role="status">{keeper.unsaved > 0 ? 'Saving ...' : keeper.notice}</p>
    </section>
  );
}
