'use client';

import { useId, useState } from 'react';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import type { Edge } from './round-view';

/** A pair of opposite edges, as the eye sees them, turned into where the cut lies that way. */
export interface Measured {
  readonly axis: 'sideways' | 'lengthways';
  readonly seenMm: number;
  readonly isByCaliper: boolean;
}

interface Props {
  readonly edge: Edge;
  readonly gapsMm: readonly number[];
  readonly system: UnitSystem;
  readonly onMeasured: (measured: Measured) => void;
}

const PAIRS = [
  ['sideways', 'on the left', 'on the right'],
  ['lengthways', 'towards you', 'away from you'],
] as const;

type Widths = Readonly<Record<string, number | null>>;

/** For those who measure or compare: a pair of opposite edges moves the picture by half their difference. */
export function EdgesMeasured({ edge, gapsMm, system, onMeasured }: Props) {
  const told = (isByCaliper: boolean) => (widths: Widths) => {
    for (const [axis, minus, plus] of PAIRS) {
      const [low, high] = [widths[minus], widths[plus]];
      if (typeof low === 'number' && typeof high === 'number')
        onMeasured({ axis, seenMm: edge.displacement(low, high), isByCaliper });
    }
  };
  const edges = `${edge.name.toLowerCase()}s`;
  return (
    <>
      <details>
        <summary>{`Measure the ${edges} instead`}</summary>
        <ByCaliper name={edge.name} system={system} onWidths={told(true)} />
      </details>
      {gapsMm.length > 0 && (
        <details>
          <summary>{`Compare the ${edges} with the printed strip of gaps`}</summary>
          <ByStrip name={edge.name} gapsMm={gapsMm} system={system} onWidths={told(false)} />
        </details>
      )}
    </>
  );
}

interface WaysProps {
  readonly name: Edge['name'];
  readonly system: UnitSystem;
  readonly onWidths: (widths: Widths) => void;
}

function ByCaliper({ name, system, onWidths }: WaysProps) {
  const [widths, setWidths] = useState<Widths>({});
  return (
    <>
      {PAIRS.map(([axis, minus, plus]) => (
        <div key={axis} className="d-flex flex-wrap gap-3">
          {[minus, plus].map((side) => (
            <LengthField
              key={side}
              label={`${name} ${side}`}
              system={system}
              onChange={(mm) => {
                const next = { ...widths, [side]: mm };
                setWidths(next);
                onWidths(next);
              }}
            />
          ))}
        </div>
      ))}
    </>
  );
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** Every gap, and the half between two, which a rim may lie between. */
const choicesOf = (gapsMm: readonly number[]): readonly number[] =>
  gapsMm.flatMap((gap, i) => {
    const next = gapsMm[i + 1];
    return next === undefined ? [gap] : [gap, (gap + next) / 2];
  });

function ByStrip({ name, gapsMm, system, onWidths }: WaysProps & { readonly gapsMm: readonly number[] }) {
  const id = useId();
  const [widths, setWidths] = useState<Widths>({});
  const choices = choicesOf(gapsMm);
  return (
    <div className="d-flex flex-wrap gap-3 mt-2">
      {PAIRS.flatMap(([, minus, plus]) => [minus, plus]).map((side) => (
        <div key={side}>
          <label
            htmlFor={`${id} ${side}`}
            className="form-label"
          >{`${capital(side)} the ${name.toLowerCase()} is like`}</label>
          <select
            id={`${id} ${side}`}
            className="form-select figures"
            value={widths[side] ?? ''}
            onChange={(event) => {
              const next = { ...widths, [side]: event.target.value === '' ? null : Number(event.target.value) };
              setWidths(next);
              onWidths(next);
            }}
          >
            <option value="">&ndash;</option>
            {choices.map((gap, i) => (
              <option key={gap} value={gap}>
                {`${i % 2 === 0 ? 'the gap' : 'between two,'} ${formatSize(gap, system)}`}
              </option>
            ))}
          </select>
        </div>
      ))}
    </div>
  );
}
