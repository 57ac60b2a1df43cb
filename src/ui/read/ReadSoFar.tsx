import { formatReading } from '@/core/units/length';
import { scaleOfFigure, type LookFigure } from './figure-look';
import { slotKey, type Kept } from './slot';

interface SoFarProps {
  readonly figures: readonly LookFigure[];
  readonly kept: Readonly<Record<string, Kept>>;
  readonly isBlind: boolean;
  readonly current: number | null;
  readonly onChoose: (index: number) => void;
}

/** What was read so far; a tap reads it again. A confirming cut is read blind: only that it was read is shown. */
export function ReadSoFar({ figures, kept, isBlind, current, onChoose }: SoFarProps) {
  const words = (k: Kept | undefined, figure: LookFigure): string => {
    if (!k) return '\u2013';
    if (k.readingMm === null) return k.state === 'skipped' ? 'skipped' : 'unreadable';
    return isBlind ? 'read' : formatReading(k.readingMm, scaleOfFigure(figure), true);
  };
  const mark = (k: Kept | undefined): string => (k?.isSaved === false ? ' \u2026' : '');
  return (
    <ol className="so-far">
      {figures.map((f, i) => (
        <li key={slotKey({ ...f, method: f.kind })}>
          <button
            type="button"
            className={i === current ? 'current' : ''}
            onClick={() => {
              onChoose(i);
            }}
          >
            <span className="quiet">{`${f.spotNo} ${f.axis}`}</span>{' '}
            <span className="figures">
              {words(kept[slotKey({ ...f, method: f.kind })], f)}
              {mark(kept[slotKey({ ...f, method: f.kind })])}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}
