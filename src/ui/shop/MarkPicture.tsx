import { markPlaces, type MarkScheme } from '@/core/shop/marks';
import type { SheetSize } from '@/core/units/sheet-size';

interface Props {
  readonly scheme: Pick<MarkScheme, 'kind' | 'insetMm' | 'sizeMm' | 'keepOutMm'>;
  readonly page: SheetSize;
  readonly heightPx?: number;
}

/** Where marks stand on a page: plain gray zones with the room they need, true to scale; nothing of any machine's own shape. */
export function MarkPicture({ scheme, page, heightPx = 96 }: Props) {
  const { widthMm: w, lengthMm: l } = page;
  const half = Math.max(scheme.sizeMm, 4) / 2;
  const room = half + scheme.keepOutMm;
  return (
    <svg
      viewBox={`${-w / 2 - 2} ${-l / 2 - 2} ${w + 4} ${l + 4}`}
      height={heightPx}
      width={(heightPx * (w + 4)) / (l + 4)}
      aria-hidden="true"
      className="d-block mb-1"
    >
      <rect x={-w / 2} y={-l / 2} width={w} height={l} fill="var(--sheet)" stroke="var(--ink-2)" strokeWidth="1.5" />
      {scheme.kind === 'frame' && (
        <rect
          x={-w / 2 + scheme.insetMm}
          y={-l / 2 + scheme.insetMm}
          width={w - 2 * scheme.insetMm}
          height={l - 2 * scheme.insetMm}
          fill="none"
          stroke="var(--ink-2)"
          strokeWidth="2"
        />
      )}
      {scheme.kind !== 'frame' &&
        markPlaces(scheme, page).map((p) => (
          <g key={`${p.x} ${p.y}`}>
            <rect x={p.x - room} y={-p.y - room} width={2 * room} height={2 * room} fill="var(--bed)" />
            <rect x={p.x - half} y={-p.y - half} width={2 * half} height={2 * half} fill="var(--ink-2)" />
          </g>
        ))}
    </svg>
  );
}
