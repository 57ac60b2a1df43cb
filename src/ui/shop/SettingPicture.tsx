import type { ActsOn, MachineSetting } from '@/core/setting/machine-setting';
import { leadingEdgeInView, viewOfChange } from '@/core/setting/setting-move';
import type { FeedDirection } from '@/core/geometry/load';
import { apply, cornersOf, type Point } from '@/core/geometry/affine';

interface Props {
  readonly actsOn: ActsOn;
  readonly sense: 1 | -1;
  readonly isKnown: boolean;
  /** How the machine is fed, as one stands before it. */
  readonly feed: FeedDirection;
}

/** Enough of a setting to draw what it does, much enlarged. */
function exaggerated(actsOn: ActsOn, sense: 1 | -1): MachineSetting {
  const isOffset = actsOn.startsWith('offset');
  return {
    id: '',
    displayName: '',
    kind: 'typed',
    isInProgram: false,
    actsOn,
    unit: isOffset ? 'mm' : 'percent',
    unitSize: null,
    step: 1,
    minValue: 0,
    maxValue: 100,
    sense,
    gain: 1,
    entry: 'new_value',
    combine: 'replaces',
    pivot: { x: 0, y: 0 },
    scalesOffset: 'unknown',
    pressThis: '',
    notThat: '',
    value: 0,
  };
}

/** What a plus in this setting does to the cut: the print in ink, the cut before and after dashed in red. */
export function SettingPicture({ actsOn, sense, isKnown, feed }: Props) {
  const corners = cornersOf<'view'>(100, 140);
  const map = viewOfChange(exaggerated(actsOn, sense), 0, 12, feed);
  const isLeadingAway = leadingEdgeInView(feed).y > 0;
  const outline = (points: readonly Point<'view'>[]): string => points.map((p) => `${p.x},${-p.y}`).join(' ');
  return (
    <figure>
      <svg viewBox="-75 -95 150 190" className="drawing" role="img" aria-label="What plus does to the cut">
        <rect x="-75" y="-95" width="150" height="190" fill="var(--bed)" />
        <polygon points={outline(corners)} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.2" />
        <text x="0" y={isLeadingAway ? -78 : 84} textAnchor="middle" fontSize="8" fill="var(--ink-2)">
          leading edge
        </text>
        <polygon
          points={outline(corners.map((p) => apply(map, p)))}
          fill="none"
          stroke="var(--plumb)"
          strokeWidth="1.6"
          strokeDasharray={isKnown ? '6 3' : '1.5 4'}
        />
        {!isKnown && (
          <text x="0" y="4" textAnchor="middle" fontSize="9" fill="var(--ink)">
            this way, or the other?
          </text>
        )}
      </svg>
      <figcaption className="quiet">
        {isKnown
          ? 'Plus takes the cut from the print\u2019s outline to the dashed one, much enlarged, seen from where you stand.'
          : 'Which way plus goes is not known. A which-way test finds out: two cuts in one load, the value changed between.'}
      </figcaption>
    </figure>
  );
}
