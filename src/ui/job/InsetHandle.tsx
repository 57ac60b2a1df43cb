'use client';

import type { KeyboardEvent, PointerEvent } from 'react';
import type { LayoutPage } from '@/core/layout/page-area';
import { formatSize, type UnitSystem } from '@/core/units/length';

/** How the inset is moved. */
export interface InsetMove {
  readonly insetMm: number;
  readonly isHeld: boolean;
  readonly onHeld: (isHeld: boolean) => void;
  readonly onInset: (mm: number) => void;
}

interface HandleProps extends InsetMove {
  readonly page: Pick<LayoutPage, 'widthMm' | 'lengthMm'>;
  readonly size: number;
  readonly system: UnitSystem;
}

const STEP_MM = 0.5;
const round = (mm: number): number => Math.round(mm * 10) / 10;

/** The corner of the inset, to be dragged, or moved by the arrow keys. */
export function InsetHandle({ page, insetMm, size, system, isHeld, onHeld, onInset }: HandleProps) {
  const most = Math.min(page.widthMm, page.lengthMm) / 2 - 5;
  const set = (mm: number): void => {
    onInset(round(Math.min(most, Math.max(0, mm))));
  };
  const drag = (event: PointerEvent<SVGGElement>): void => {
    const svg = event.currentTarget.ownerSVGElement;
    const matrix = svg?.getScreenCTM();
    if (!isHeld || !matrix) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    set(page.widthMm - at.x);
  };
  const key = (event: KeyboardEvent): void => {
    const steps: Readonly<Record<string, number>> = { ArrowLeft: 1, ArrowDown: 1, ArrowRight: -1, ArrowUp: -1 };
    const step = steps[event.key];
    if (step === undefined) return;
    event.preventDefault();
    set(insetMm + step * STEP_MM);
  };
  const x = page.widthMm - insetMm;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Inset of the marks"
      aria-valuemin={0}
      aria-valuemax={round(most)}
      aria-valuenow={insetMm}
      aria-valuetext={formatSize(insetMm, system)}
      className="grip"
      onKeyDown={key}
      onPointerDown={(event) => {
        onHeld(true);
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onLostPointerCapture={() => {
        onHeld(false);
      }}
      onPointerMove={drag}
    >
      <rect x={x - size / 2} y={insetMm - size / 2} width={size} height={size} fill="transparent" />
      <path
        d={`M${x - size / 3} ${insetMm}h${size / 3}v${size / 3}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={size / 9}
      />
      <circle cx={x} cy={insetMm} r={size / 5} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={size / 14} />
    </g>
  );
}
