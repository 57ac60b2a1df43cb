import { formatLength, type UnitSystem } from '@/core/units/length';
import { slotKey, type Kept } from './slot';

interface SoFarProps {
  readonly view: {
    readonly method: string;
    readonly discs: readonly { readonly spotNo: number }[];
    readonly isBlind: boolean;
    readonly system: UnitSystem;
  };
  readonly kept: Readonly<Record<string, Kept>>;
  readonly current: number | null;
  readonly onChoose: (index: number) => void;
}

/** What was read so far; a tap reads it again. A confirming cut is read blind. */
export function RoundsSoFar({ view, kept, current, onChoose }: SoFarProps) {
  const words = (spotNo: number): string => {
    const both = (['across', 'along'] as const).map((axis) => kept[slotKey({ method: view.method, spotNo, axis })]);
    const [first] = both;
    if (!first) return '\u2013';
    if (first.state !== 'read') return first.state;
    if (view.isBlind) return 'read';
    const values = both.map((k) => formatLength(k?.readingMm ?? 0, view.system, true)).join(', ');
    return both.some((k) => k?.isSaved === false) ? `${values} \u2026` : values;
  };
  return (
    <ol className="so-far">
      {view.discs.map((d, i) => (
        <li key={d.spotNo}>
          <button
            type="button"
            className={d.spotNo === current ? 'current' : ''}
            onClick={() => {
              onChoose(i);
            }}
          >
            <span className="quiet">{`disc ${d.spotNo}`}</span> <span className="figures">{words(d.spotNo)}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}
