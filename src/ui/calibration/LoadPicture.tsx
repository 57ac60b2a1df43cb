import { machineToView, sheetToMachine, type FeedDirection, type Load } from '@/core/geometry/load';
import { then } from '@/core/geometry/affine';

/** How the sheet lies in the cutter, as one who stands before it sees it: feed arrow on the bed, the sheet's own arrow printed or seen through. */
export function LoadPicture({
  load,
  feed,
  size = 96,
}: {
  readonly load: Load;
  readonly feed: FeedDirection;
  readonly size?: number;
}) {
  const map = then(sheetToMachine(load), machineToView(feed));
  const matrix = `matrix(${map.xx} ${-map.yx} ${-map.xy} ${map.yy} 0 0)`;
  const isSeen = load.face === 'ink-up';
  return (
    <svg viewBox="-60 -60 120 120" width={size} height={size} aria-hidden="true">
      <rect x="-58" y="-58" width="116" height="116" fill="var(--bed)" />
      <path
        d={feed === 'away' ? 'M48 40V-40M42 -30L48 -42L54 -30' : 'M48 -40V40M42 30L48 42L54 30'}
        stroke="var(--ink-2)"
        strokeWidth="2.5"
        fill="none"
      />
      <g transform={`translate(-6 0) ${matrix}`}>
        <rect x="-32" y="-42" width="64" height="84" fill="var(--sheet)" stroke="var(--ink-2)" strokeWidth="1" />
        <path
          d="M0 -27L12 -11H4.5V16H-4.5V-11H-12Z"
          fill={isSeen ? 'var(--ink)' : 'none'}
          stroke="var(--ink)"
          strokeWidth="1.4"
          strokeDasharray={isSeen ? undefined : '3 2'}
        />
        <rect
          x="-28"
          y="-36"
          width="2"
          height="72"
          fill={isSeen ? 'var(--ink)' : 'none'}
          stroke="var(--ink)"
          strokeWidth="0.6"
          opacity={isSeen ? 1 : 0.5}
        />
      </g>
    </svg>
  );
}
