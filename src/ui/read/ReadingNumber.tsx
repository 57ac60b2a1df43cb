'use client';

import { useState } from 'react';
import type { ReadingScale } from '@/core/target/reading-scale';
import { formatReadingNumber, lengthProblemWords, parseLength } from '@/core/units/length';

interface Props {
  readonly label: string;
  /** How far the figure shows the cut to be off, and what to say beyond. */
  readonly reachMm: number;
  readonly beyondWords: string;
  /** The nearest answer that the figure can give. */
  readonly settle: (mm: number) => number;
  readonly valueMm: number;
  /** Unit of the numbers printed at the figure: what is typed without a unit is in it. */
  readonly scale: ReadingScale;
  readonly onChange: (mm: number) => void;
  /** Enter keeps the reading, as typed when something was typed. */
  readonly onEnter: (mm: number) => void;
}

/** The reading as a number to be read from a metre away; typing one works as well. */
export function ReadingNumber({ label, reachMm, beyondWords, settle, valueMm, scale, onChange, onEnter }: Props) {
  // What is being typed belongs to the value it was begun at: when the picture moves, the number follows.
  const [draft, setDraft] = useState<{ text: string; forMm: number } | null>(null);
  const typed = draft?.forMm === valueMm ? draft.text : null;
  const shown = typed ?? formatReadingNumber(valueMm, scale, true);
  const parsed = typed === null || typed === '' ? null : parseLength(typed, scale);
  const isFar = parsed?.ok === true && Math.abs(parsed.value) > reachMm;
  return (
    <div className="reading-number">
      <label htmlFor="reading">{label}</label>
      <input
        id="reading"
        className="figures"
        inputMode="decimal"
        autoComplete="off"
        value={shown}
        onFocus={(e) => {
          e.target.select();
        }}
        onChange={(e) => {
          setDraft({ text: e.target.value, forMm: valueMm });
        }}
        onBlur={() => {
          if (parsed?.ok && !isFar) onChange(settle(parsed.value));
          setDraft(null);
        }}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          const isGood = parsed?.ok === true && !isFar;
          if (typed !== null && !isGood) return;
          setDraft(null);
          onEnter(isGood ? settle(parsed.value) : valueMm);
        }}
      />
      <span>{scale}</span>
      {parsed && !parsed.ok && (
        <span className="invalid-feedback d-block">{lengthProblemWords(parsed.error, scale)}</span>
      )}
      {isFar && <span className="invalid-feedback d-block">{beyondWords}</span>}
    </div>
  );
}
