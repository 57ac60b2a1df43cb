'use client';

import { labelOf, linesOf, type Ladder } from '@/core/reading/ladder';

interface Props {
  readonly ladder: Ladder;
  readonly title: string;
  /** Counted from 1, or the half between two; null: none yet. */
  readonly line: number | null;
  readonly onPick: (line: number | null) => void;
}

/** A press on a line: it alone; with its neighbour pressed before, the half between; once more, none of it. */
function pressed(line: number | null, at: number): number | null {
  if (line === null) return at;
  if (line === at) return null;
  if (Math.abs(line - at) === 1) return (line + at) / 2;
  // Of two that are pressed the one that is pressed again is let go.
  if (Math.abs(line - at) === 0.5) return line > at ? line + 0.5 : line - 0.5;
  return at;
}

/** The machine's row of lines with its own labels: the one that looks best is pressed, or two neighbours that look equally good. */
export function LinePicker({ ladder, title, line, onPick }: Props) {
  return (
    <div role="group" aria-label={title} className="line-row">
      {linesOf(ladder).map((at) => (
        <button
          key={at}
          type="button"
          className="figures"
          aria-pressed={line !== null && Math.abs(line - at) < 1}
          onClick={() => {
            onPick(pressed(line, at));
          }}
        >
          {labelOf(ladder, at)}
        </button>
      ))}
    </div>
  );
}
