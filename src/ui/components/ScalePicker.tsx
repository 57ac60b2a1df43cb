import { READING_SCALES, type ReadingScale } from '@/core/target/reading-scale';

const WORDS: Readonly<Record<ReadingScale, string>> = { mm: 'mm', thou: 'thousandths of an inch' };

interface Props {
  readonly scale: ReadingScale;
  readonly onChoose: (scale: ReadingScale) => void;
}

/** Unit of the numbers that are printed at the figures; readings are typed in it. */
export function ScalePicker({ scale, onChoose }: Props) {
  return (
    <fieldset className="mb-3">
      <legend className="form-label">Numbers on the sheet</legend>
      <div className="d-flex flex-wrap gap-3">
        {READING_SCALES.map((s) => (
          <label key={s} className="form-check">
            <input
              type="radio"
              className="form-check-input"
              name="scale"
              checked={s === scale}
              onChange={() => {
                onChoose(s);
              }}
            />
            <span className="form-check-label">{WORDS[s]}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
