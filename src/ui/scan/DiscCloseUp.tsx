import { cropHalfMm } from '@/core/scan/upright-crop';
import type { DiscResult } from '@/core/scan/measured-figure';
import { formatFine, formatFineNumber, type UnitSystem } from '@/core/units/length';
import type { ShownDisc } from './scan-view';
import { stateWords } from './state-words';

interface Props {
  readonly own: ShownDisc;
  readonly disc: DiscResult;
  /** Its picture. */
  readonly href: string | undefined;
  readonly system: UnitSystem;
}

/** Displacements are drawn so many times longer, from middle to middle. */
const ARROW_TIMES = 5;

/** One disc magnified, the right way up, with the two circles that were fitted to it. */
export function DiscCloseUp({ own, disc, href, system }: Props) {
  const reach = cropHalfMm(own.figure);
  const { print, cut, displacement, state } = disc;
  const { name, todo } = stateWords(state, own.figure.cutShape);
  const words = displacement
    ? `${formatFineNumber(displacement.acrossMm, system, true)} across, ${formatFine(displacement.alongMm, system, true)} along`
    : 'no displacement';
  return (
    <figure className="close-up">
      <svg
        viewBox={`${-reach} ${-reach} ${2 * reach} ${2 * reach}`}
        role="img"
        aria-label={`${own.name} magnified, ${name}: ${words}`}
      >
        {href && <image href={href} x={-reach} y={-reach} width={2 * reach} height={2 * reach} />}
        {print && (
          <circle
            cx={print.x}
            cy={-print.y}
            r={print.radiusMm}
            fill="none"
            stroke="var(--scan-good)"
            strokeWidth="0.07"
          />
        )}
        {cut && (
          <circle
            cx={cut.x}
            cy={-cut.y}
            r={cut.radiusMm}
            fill="none"
            stroke="var(--plumb-on-picture)"
            strokeWidth="0.07"
            strokeDasharray="0.4 0.22"
          />
        )}
        {print && cut && displacement && (
          <line
            x1={print.x}
            y1={-print.y}
            x2={print.x + ARROW_TIMES * displacement.acrossMm}
            y2={-print.y - ARROW_TIMES * displacement.alongMm}
            stroke="var(--plumb-on-picture)"
            strokeWidth="0.12"
          />
        )}
      </svg>
      <figcaption>
        <strong>{`${own.name}: ${name}`}</strong>
        <br />
        In this scan: <span className="figures">{words}</span>
        <br />
        <span className="quiet">
          {todo === '' ? `Print drawn whole, cut dashed; the line is ${ARROW_TIMES} times the displacement.` : todo}
        </span>
      </figcaption>
    </figure>
  );
}
