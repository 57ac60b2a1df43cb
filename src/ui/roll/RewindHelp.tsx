'use client';

import { useState } from 'react';
import { LEAST_REWINDS, rewindScatter } from '@/core/drift/rewind-scatter';
import {
  formatLength,
  formatLengthNumber,
  lengthProblemWords,
  parseLength,
  type UnitSystem,
} from '@/core/units/length';
import { TypedField } from '../components/TypedField';

interface Props {
  readonly system: UnitSystem;
  /** Typed before. */
  readonly shiftsMm: readonly number[];
  readonly onShifts: (shiftsMm: readonly number[]) => void;
  readonly onUse: (sdMm: number) => void;
}

/** What was typed, length by length; a semicolon or a blank between them, so that a decimal comma may be used. */
function shiftsIn(text: string, system: UnitSystem) {
  const words = text
    .split(/[;\n]|\s+(?=[-+\u2212\d])/)
    .map((w) => w.trim())
    .filter((w) => w !== '');
  return words.map((word) => parseLength(word, system));
}

/** The scatter of an origin, measured: the same station after four rewinds or more. */
export function RewindHelp({ system, shiftsMm, onShifts, onUse }: Props) {
  const [text, setText] = useState(() => shiftsMm.map((mm) => formatLengthNumber(mm, system)).join('; '));
  const parsed = shiftsIn(text, system);
  const wrong = parsed.find((p) => !p.ok);
  const told = rewindScatter(parsed.flatMap((p) => (p.ok ? [p.value] : [])));
  return (
    <details className="mb-3">
      <summary>Measure it: rewind four times or more</summary>
      <p className="quiet mt-2">
        Rewind, cut the first station, and read how far it is off; again, four times at least. Hands off the roll while
        it winds. Type the shifts of one direction, a semicolon between them.
      </p>
      <TypedField
        label="Shifts after each rewind"
        text={text}
        unit=""
        problem={wrong ? lengthProblemWords(wrong.error, system) : null}
        onType={(typed) => {
          setText(typed);
          onShifts(shiftsIn(typed, system).flatMap((p) => (p.ok ? [p.value] : [])));
        }}
      />
      {text !== '' && !told.ok && !wrong && (
        <p className="quiet">{`${Math.max(0, LEAST_REWINDS - parsed.length)} more rewinds are wanted.`}</p>
      )}
      {told.ok && !wrong && (
        <p>
          {`They scatter by ${formatLength(told.value.sdMm, system)} (SD), below ${formatLength(told.value.sdUpperMm, system)} 95 % sure. So few of them are reckoned as ${formatLength(told.value.nextSdMm, system)}; their mean, ${formatLength(told.value.meanMm, system, true)}, is for the offset. `}
          <button
            type="button"
            className="btn btn-quiet"
            onClick={() => {
              onUse(told.value.nextSdMm);
            }}
          >
            Reckon with that
          </button>
        </p>
      )}
    </details>
  );
}
