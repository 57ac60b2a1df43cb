import { useId } from 'react';
import type { MarksReadInput } from '@/contracts/floor';
import type { Light } from '@/core/shop/light';
import { LightPicker } from '../components/LightPicker';

const CHOICES: readonly (readonly [value: string, words: string])[] = [
  ['', 'not told'],
  ['1', 'at the first try'],
  ['2', 'at the second'],
  ['3', 'at the third'],
  ['4', 'at the fourth or later'],
  ['none', 'never: it was cut without, or given up'],
];

/** A given-up reading was tried about this often: common practice, no published source. */
const GIVEN_UP_AFTER = 3;

interface Props {
  readonly marks: MarksReadInput | null;
  readonly light: Light;
  readonly onMarks: (marks: MarksReadInput | null) => void;
  readonly onLight: (light: Light) => void;
}

const valueOf = (marks: MarksReadInput | null): string => {
  if (marks === null) return '';
  return marks.wereRead ? String(marks.tries) : 'none';
};

/** How the eye found a job's marks: so that the shop knows what it reads well. */
export function MarksReadField({ marks, light, onMarks, onLight }: Props) {
  const id = useId();
  const choose = (value: string): void => {
    if (value === '') onMarks(null);
    else if (value === 'none') onMarks({ tries: GIVEN_UP_AFTER, wereRead: false, light });
    else onMarks({ tries: Number(value), wereRead: true, light });
  };
  return (
    <div className="d-flex flex-wrap gap-3">
      <div className="mb-2">
        <label className="form-label" htmlFor={id}>
          The eye found the marks
        </label>
        <select
          id={id}
          className="form-select"
          value={valueOf(marks)}
          onChange={(event) => {
            choose(event.target.value);
          }}
        >
          {CHOICES.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </div>
      <LightPicker light={light} onLight={onLight} />
    </div>
  );
}
