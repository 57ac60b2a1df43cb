import type { ReactNode } from 'react';
import type { Point } from '@/core/geometry/affine';
import { OWN_MARK_MM } from '@/core/target/block';
import { cutOf, inkOf } from '@/core/target/drawing';
import type { InkShape } from '@/core/target/figure-ink';
import type { SetNo, SheetDefinition } from '@/core/target/sheet-definition';
import { InkShapes } from './InkShapes';
import { sheetFrame } from './sheet-frame';

interface Props {
  readonly definition: SheetDefinition;
  readonly code: string;
  /** Counter-clockwise turn of the printed arrow in the view. */
  readonly turnDeg?: number;
  readonly cutSets?: readonly SetNo[];
  readonly label: string;
  /** Drawn over the sheet in the sheet frame, y up. */
  readonly children?: ReactNode;
  readonly isInkFaint?: boolean;
  readonly blockOnly?: boolean;
  /** Registration marks: our own are printed in ink; a program's are only known as zones, drawn grey. */
  readonly marks?: { readonly centres: readonly Point[]; readonly isOurs: boolean };
}

/** Smaller print cannot be read as a backdrop. */
const LEGIBLE_MM = 2.5;

/** The print as a backdrop: shapes faint, the larger words as they are, the small ones left out. */
function FaintInk({ shapes }: { readonly shapes: readonly InkShape[] }) {
  return (
    <>
      <g opacity="0.3">
        <InkShapes shapes={shapes.filter((s) => s.kind !== 'text')} />
      </g>
      <InkShapes shapes={shapes.filter((s) => s.kind === 'text' && s.heightMm >= LEGIBLE_MM)} />
    </>
  );
}

/** The check sheet, true to shape: print in ink, cut in dashed red, on its paper. */
export function SheetDrawing({
  definition,
  code,
  turnDeg = 0,
  cutSets = [],
  label,
  children,
  isInkFaint = false,
  blockOnly = false,
  marks,
}: Props) {
  const { block } = definition;
  const paper = blockOnly ? { widthMm: block.widthMm + 6, lengthMm: block.lengthMm + 6 } : block.page;
  const frame = sheetFrame(paper, turnDeg);
  return (
    <svg className="drawing" viewBox={frame.viewBox} role="img" aria-label={label} style={{ maxHeight: '74vh' }}>
      <g transform={frame.transform}>
        <rect
          x={-paper.widthMm / 2}
          y={-paper.lengthMm / 2}
          width={paper.widthMm}
          height={paper.lengthMm}
          fill="var(--sheet)"
          stroke="var(--rule)"
          strokeWidth="0.4"
        />
        {isInkFaint ? <FaintInk shapes={inkOf(definition, code)} /> : <InkShapes shapes={inkOf(definition, code)} />}
        {marks?.centres.map((m) => {
          const side = marks.isOurs ? OWN_MARK_MM : 14;
          return (
            <rect
              key={`${m.x} ${m.y}`}
              x={m.x - side / 2}
              y={m.y - side / 2}
              width={side}
              height={side}
              fill={marks.isOurs ? 'var(--ink)' : 'var(--bed)'}
            />
          );
        })}
        {cutSets.map((setNo) => (
          <g key={setNo} fill="none" stroke="var(--plumb)" strokeWidth="0.35" strokeDasharray="1.6 1">
            {cutOf(definition, setNo).map((path, i) => (
              <polyline key={i} points={path.map((p) => `${p.x.toFixed(2)},${p.y.toFixed(2)}`).join(' ')} />
            ))}
          </g>
        ))}
        {children}
      </g>
    </svg>
  );
}
