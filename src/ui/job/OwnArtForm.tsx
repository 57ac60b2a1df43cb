'use client';

import type { ArtBox, JobDraft } from '@/core/layout/job-draft';
import type { UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';

interface Props {
  readonly draft: JobDraft;
  readonly system: UnitSystem;
  readonly onChange: (next: Partial<JobDraft>) => void;
}

const FIELDS: readonly (readonly [name: keyof ArtBox, label: string])[] = [
  ['widthMm', 'Width of the art'],
  ['lengthMm', 'Length of the art'],
  ['leftMm', 'From the page\u2019s left edge'],
  ['topMm', 'From the end that leads'],
];

/** Where a program\u2019s own art stands on its page, as the program tells it: only checked here. */
export function OwnArtForm({ draft, system, onChange }: Props) {
  const { artBox } = draft;
  if (!artBox) return null;
  return (
    <section aria-label="Where your program puts the art">
      <h2>Where your program puts the art</h2>
      <p className="quiet">
        Type what the program shows of everything together, cut lines as well. The page is checked; the layout stays the
        program&rsquo;s.
      </p>
      <div className="d-flex flex-wrap gap-3">
        {FIELDS.map(([name, label]) => (
          <LengthField
            key={name}
            label={label}
            system={system}
            initialMm={artBox[name]}
            onChange={(mm) => {
              if (mm !== null) onChange({ artBox: { ...artBox, [name]: mm } });
            }}
          />
        ))}
      </div>
    </section>
  );
}
