'use client';

import { max, scaleBand, scaleLinear } from 'd3';
import { moneyWords } from '../components/money';
import { useWidth } from '../components/use-width';

const HEIGHT = 190;
const MARGIN = { left: 56, right: 28, top: 10, bottom: 28 };
/** Narrower than this, month names would run into each other. */
const NAME_PX = 64;

interface Props {
  readonly months: readonly { readonly words: string; readonly cost: number }[];
  readonly currency: string | null;
}

/** What spoiled work cost, month by month. */
export function CostBars({ months, currency }: Props) {
  const [box, width] = useWidth<HTMLDivElement>(700);
  const x = scaleBand(
    months.map((m) => m.words),
    [MARGIN.left, width - MARGIN.right],
  ).padding(0.25);
  const most = max(months, (m) => m.cost) ?? 0;
  const y = scaleLinear([0, most === 0 ? 1 : most], [HEIGHT - MARGIN.bottom, MARGIN.top]).nice();
  const every = Math.max(1, Math.ceil(NAME_PX / x.step()));
  return (
    <div ref={box}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        className="w-100"
        role="img"
        aria-label={`Cost of spoiled work in ${months.length} months, at most ${moneyWords(most, currency)} in one`}
      >
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={MARGIN.left} x2={width - MARGIN.right} y1={y(t)} y2={y(t)} stroke="var(--rule)" />
            <text x={MARGIN.left - 8} y={y(t) + 5} textAnchor="end" fontSize="14" fill="var(--ink-2)">
              {t}
            </text>
          </g>
        ))}
        {months.map((m, i) => (
          <g key={m.words}>
            <rect x={x(m.words)} y={y(m.cost)} width={x.bandwidth()} height={y(0) - y(m.cost)} fill="var(--ink-2)" />
            {i % every === 0 && (
              <text
                x={(x(m.words) ?? 0) + x.bandwidth() / 2}
                y={HEIGHT - 8}
                textAnchor="middle"
                fontSize="14"
                fill="var(--ink-2)"
              >
                {m.words}
              </text>
            )}
          </g>
        ))}
      </svg>
    </div>
  );
}
