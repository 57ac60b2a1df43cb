import Link from 'next/link';
import { cutStrip, inkWedges } from '@/core/target/wedge';

const H = 16;

function Strip({ offset }: { readonly offset: number }) {
  const points = (list: readonly { u: number; v: number }[]): string => list.map((p) => `${p.u - H},${-p.v}`).join(' ');
  return (
    <svg viewBox="-19 -7 38 14" className="drawing" aria-hidden="true">
      <rect x="-19" y="-7" width="38" height="14" fill="var(--sheet)" />
      {inkWedges(H, 0).map((w, i) => (
        <polygon key={i} points={points(w)} fill="var(--ink)" />
      ))}
      <polygon
        points={points(cutStrip(H).map((p) => ({ u: p.u, v: p.v + offset })))}
        fill="var(--bed)"
        stroke="var(--plumb)"
        strokeWidth="0.15"
        strokeDasharray="0.7 0.4"
      />
    </svg>
  );
}

/** Two pictures to choose from: in reach of the fine figures, or far off. */
export function LookFirst({ fineHref, roughHref }: { readonly fineHref: string; readonly roughHref: string }) {
  return (
    <div className="two">
      <Link href={fineHref} className="look" prefetch={false}>
        <Strip offset={0.3} />
        <strong>Yes, like this: some dark is left on both sides</strong>
      </Link>
      <Link href={roughHref} className="look" prefetch={false}>
        <Strip offset={4.2} />
        <strong>No: it is off to the side, or not there at all</strong>
      </Link>
    </div>
  );
}
