import type { ReactNode } from 'react';
import { Rail } from './Rail';
import type { CurrentPersonView } from './types';

/** Shell of the pages outside a calibration. */
export function HomeShell({
  here,
  people,
  children,
}: {
  readonly here: 'Bench' | 'Jobs' | 'History' | 'Shop';
  readonly people: CurrentPersonView;
  readonly children: ReactNode;
}) {
  const stops = [
    { label: 'Bench', href: '/' },
    { label: 'Jobs', href: '/jobs' },
    { label: 'History', href: '/history' },
    { label: 'Shop', href: '/shop' },
  ];
  const index = stops.findIndex((s) => s.label === here);
  return (
    <div className="shell">
      <Rail people={people} stops={stops.map((stop, i) => ({ ...stop, place: placeOf(i, index) }))} />
      <main>{children}</main>
    </div>
  );
}

function placeOf(i: number, index: number): 'done' | 'here' | 'ahead' {
  if (i === index) return 'here';
  return i < index ? 'done' : 'ahead';
}
