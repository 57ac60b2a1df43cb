import { scaleLinear } from 'd3';
import type { Proportion } from '@/core/math/proportion';

const WIDTH = 160;
const HEIGHT = 18;
const x = scaleLinear([0, 1], [4, WIDTH - 4]);

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** A share with the range in which it may truly lie: a dot on a line from none to all. */
export function ShareBar({ share }: { readonly share: Proportion }) {
  const words = `${percent(share.share)}, truly ${percent(share.lower)} to ${percent(share.upper)}`;
  return (
    <>
      <svg width={WIDTH} height={HEIGHT} role="img" aria-label={words} className="share-bar">
        <line x1={x(0)} x2={x(1)} y1={HEIGHT / 2} y2={HEIGHT / 2} className="whole" />
        <line x1={x(share.lower)} x2={x(share.upper)} y1={HEIGHT / 2} y2={HEIGHT / 2} className="range" />
        <circle cx={x(share.share)} cy={HEIGHT / 2} r={4} />
      </svg>
      <span className="figures d-block">{words}</span>
    </>
  );
}
