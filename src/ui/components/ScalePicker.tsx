import { useId } from 'react';
import { READING_SCALES, type ReadingScale } from '@/core/target/reading-scale';

const WORDS: Readonly<Record<ReadingScale, string>> = { mm: 'mm', thou: 'thousandths of an inch' };

interface Props {
  readonly scale: ReadingScale;
  readonly onChoose: (scale: ReadingScale) => void;
}

/** Unit of the numbers that are printed at the figures; readings are typed in it. */
export function ScalePicker({ scale, onChoose }: Props) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="form-label">
        Numbers on the sheet
      </label>
      <select
        id={id}
        className="form-select"
        value={scale}
        onChange={(event) => {
          const chosen = READING_SCALES.find((s) => s === event.target.value);
          if (chosen) onChoose(chosen);
        }}
      >
        {READING_SCALES.map((s) => (
          <option key={s} value={s}>
            {WORDS[s]}
          </option>
        ))}
      </select>
    </div>
  );
}
