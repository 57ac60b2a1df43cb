import Link from 'next/link';
import { combCuts, combMarks, type CombPoint } from '@/core/target/comb';
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

/** The lower half of a comb's middle: its ruler, and the long cut line that crosses it. */
function Ruler({ offset }: { readonly offset: number }) {
  const ends = (from: CombPoint, to: CombPoint) => ({ x1: from.s, y1: -from.w, x2: to.s, y2: -to.w });
  return (
    <svg viewBox="-12 -5 24 15" className="drawing" aria-hidden="true">
      <rect x="-12" y="-5" width="24" height="15" fill="var(--sheet)" />
      {combMarks().map((m) => (
        <line key={`${m.from.s} ${m.from.w}`} {...ends(m.from, m.to)} stroke="var(--ink)" strokeWidth={m.widthMm} />
      ))}
      {combCuts({ spotNo: 1, axis: 'across', centre: { x: offset, y: 0 }, approach: 1 }).map(([from, to]) =>
        from && to ? (
          <line
            key={from.x}
            {...ends({ s: from.x, w: from.y }, { s: to.x, w: to.y })}
            stroke="var(--plumb)"
            strokeWidth="0.22"
            strokeDasharray="0.7 0.25"
          />
        ) : null,
      )}
    </svg>
  );
}

interface Props {
  readonly figure: 'wedge' | 'comb';
  readonly fineHref: string;
  readonly roughHref: string;
}

/** Two pictures to choose from: in reach of the fine figures, or far off. */
export function LookFirst({ figure, fineHref, roughHref }: Props) {
  const isWedge = figure === 'wedge';
  return (
    <div className="two">
      <Link href={fineHref} className="look" prefetch={false}>
        {isWedge ? <Strip offset={0.3} /> : <Ruler offset={0.8} />}
        <strong>
          {isWedge ? 'Yes, like this: some dark is left on both sides' : 'Yes, like this: it crosses the ruler'}
        </strong>
      </Link>
      <Link href={roughHref} className="look" prefetch={false}>
        {isWedge ? <Strip offset={4.2} /> : <Ruler offset={6.4} />}
        <strong>No: it is off to the side, or not there at all</strong>
      </Link>
    </div>
  );
}
