'use client';

import { v4 as uuid } from 'uuid';
import { useState, useTransition } from 'react';
import { markTried } from '@/server/actions/calibration';

/** In the order to try them, one change at a time. Common practice, no published source. */
export const REMEDIES: readonly string[] = [
  'Wipe the sensor window and see that the marks are whole and dry.',
  'Check the right end is loaded and the sheet lies square, flat and inside the rollers.',
  'Check that page size and mark type in the program are those of the sheet and the machine.',
  'Lower the light: shade gloss from lamp and window (never drape cloth over a running machine).',
  'On gloss or laminate, put matt tape over the marks or set the sensor as the manual says.',
  'Move the sensor to the first mark by hand, as the manual says, and start again.',
];

interface Props {
  readonly calibrationId: string;
  readonly tries: readonly { readonly tried: string; readonly outcome: 'read' | 'not_read' }[];
}

/** Marks not read: a short list, the next one open, each try kept. */
export function MarksNotRead({ calibrationId, tries }: Props) {
  const [made, setMade] = useState(tries);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const next = REMEDIES.find((r) => !made.some((t) => t.tried === r));
  const isSolved = made.some((t) => t.outcome === 'read');

  const tell = (tried: string, outcome: 'read' | 'not_read'): void => {
    startTransition(async () => {
      const done = await markTried({ id: uuid(), calibrationId, tried, outcome });
      setProblem(done.ok ? null : done.message);
      if (done.ok) setMade([...made, { tried, outcome }]);
    });
  };

  return (
    <section aria-label="Marks not read">
      <h2>Marks not read: one change at a time</h2>
      <ol className="steps">
        {made.map((t) => (
          <li
            key={t.tried}
            className="quiet"
          >{`${t.tried} ${t.outcome === 'read' ? 'Then they were read.' : 'No change.'}`}</li>
        ))}
        {!isSolved && next && (
          <li>
            <strong>{next}</strong>
            <span className="d-flex gap-2 mt-1">
              <button
                type="button"
                className="btn btn-quiet"
                disabled={isBusy}
                onClick={() => {
                  tell(next, 'read');
                }}
              >
                Now they are read
              </button>
              <button
                type="button"
                className="btn btn-quiet"
                disabled={isBusy}
                onClick={() => {
                  tell(next, 'not_read');
                }}
              >
                Still not
              </button>
            </span>
          </li>
        )}
      </ol>
      {!isSolved && !next && (
        <p>
          All of these were tried. Print the sheet again on the material your machine reads best, and read that first.
        </p>
      )}
      {isSolved && <p>Good. Cut now, and answer above.</p>}
      <p role="alert">{problem}</p>
    </section>
  );
}
