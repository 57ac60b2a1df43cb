import Link from 'next/link';
import type { CurrentPersonView } from './types';
import { KeepHereInView } from './KeepHereInView';
import { PersonPicker } from './PersonPicker';

export interface RailStop {
  readonly label: string;
  /** Absent: cannot be gone to yet. */
  readonly href?: string;
  readonly place: 'done' | 'here' | 'ahead';
}

/** The plumb line: one string down the left, the bob hanging at where you are; what is above it is done. */
export function Rail({ stops, people }: { readonly stops: readonly RailStop[]; readonly people: CurrentPersonView }) {
  return (
    <nav className="rail" aria-label="Where you are">
      <Link href="/" className="peg">
        Red Plumb
      </Link>
      {people.notice !== null && (
        <p role="status" className="notice rail-notice">
          {people.notice}
        </p>
      )}
      <ol>
        {stops.map((stop) => (
          <li key={stop.label} className={stop.place}>
            {stop.place === 'here' && <KeepHereInView />}
            {stop.href ? (
              <Link href={stop.href} aria-current={stop.place === 'here' ? 'page' : undefined} prefetch={false}>
                {stop.label}
              </Link>
            ) : (
              <span>{stop.label}</span>
            )}
          </li>
        ))}
      </ol>
      <div className="foot">
        <PersonPicker people={people} />
      </div>
    </nav>
  );
}
