import { apply, cornersOf, type Point } from '@/core/geometry/affine';
import { fromParameters } from '@/core/geometry/error-parameters';
import type { Symptom } from '@/core/trouble/symptoms';

const PRINT = cornersOf(64, 84);
const outline = (points: readonly Point[]): string =>
  points.map((p) => `${p.x.toFixed(1)},${(-p.y).toFixed(1)}`).join(' ');

/** One corner pulled away from an otherwise good cut. */
const PULLED = 'M-32 42H14C24 42 38 40 42 30C38 18 32 8 32 -4V-42H-32Z';
/** A circle whose end misses its beginning, with the hook that a trailing blade leaves. */
const OPEN = 'M22 -4A22 22 0 1 0 20 10L27 12';

/** What a symptom looks like: the print in ink, the cut dashed, much enlarged; fainter where it is another each time. */
export function SymptomPicture({ symptom, size = 112 }: { readonly symptom: Symptom; readonly size?: number }) {
  const cut = { fill: 'none', stroke: 'var(--plumb)', strokeWidth: 2.4, strokeDasharray: '6 3.5' };
  return (
    <svg viewBox="-50 -60 100 120" width={size * 0.83} height={size} aria-hidden="true" className="flex-shrink-0">
      <rect x="-50" y="-60" width="100" height="120" fill="var(--bed)" />
      {symptom.id === 'not-closed' ? (
        <circle r="22" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
      ) : (
        <polygon points={outline(PRINT)} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
      )}
      {symptom.drawn.map((parameters, i) => (
        <polygon
          key={i}
          points={outline(PRINT.map((p) => apply(fromParameters(parameters), p)))}
          {...cut}
          opacity={1 - 0.25 * i}
        />
      ))}
      {symptom.id === 'in-places' && <path d={PULLED} {...cut} />}
      {symptom.id === 'not-closed' && <path d={OPEN} {...cut} />}
    </svg>
  );
}
