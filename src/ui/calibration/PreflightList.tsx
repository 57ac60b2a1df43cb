'use client';

import { useState } from 'react';

export interface PreflightView {
  readonly looks: readonly string[];
  readonly warnings: readonly string[];
}

/** What to look over before the step: ticked off one by one, in any order; what is known to be wrong stands open above. */
export function PreflightList({ view }: { readonly view: PreflightView }) {
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const tick = (look: string): void => {
    const next = new Set(seen);
    if (!next.delete(look)) next.add(look);
    setSeen(next);
  };
  const left = view.looks.length - seen.size;
  return (
    <>
      {view.warnings.map((w) => (
        <p key={w} className="caution">
          {w}
        </p>
      ))}
      {view.looks.length > 0 && (
        <details className="preflight">
          <summary>
            {left === 0 ? 'Looked over' : `Look over first: ${left} ${left === 1 ? 'thing' : 'things'}`}
          </summary>
          {view.looks.map((look) => (
            <label key={look} className="look-over">
              <input
                type="checkbox"
                className="tick"
                checked={seen.has(look)}
                onChange={() => {
                  tick(look);
                }}
              />
              <span>{look}</span>
            </label>
          ))}
        </details>
      )}
    </>
  );
}
