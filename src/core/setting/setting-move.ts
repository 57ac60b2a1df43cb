import { apply, displacement, inverseOf, then, type Affine, type Point } from '../geometry/affine';
import { machineToView, type FeedDirection } from '../geometry/load';
import { settingMap, type MachineSetting } from './machine-setting';

/** Half the sides of the sheet that a change of a setting is seen on, mm. */
const HALF = { x: 50, y: 70 } as const;

/** Which way a change of one setting moves the cut, as one who stands before the machine sees it. */
export type SettingMove =
  | {
      readonly kind: 'shift';
      readonly mm: number;
      readonly towards: 'right' | 'left' | 'leading-edge' | 'trailing-edge';
    }
  | { readonly kind: 'size'; readonly axis: 'across' | 'along'; readonly isLarger: boolean }
  | { readonly kind: 'turn'; readonly isCounterClockwise: boolean }
  /** The leading edge goes one way against the trailing edge. */
  | { readonly kind: 'lean'; readonly towards: 'right' | 'left' };

/** The map of a change as it is seen from before the machine. */
export function viewOfChange(
  setting: MachineSetting,
  before: number,
  after: number,
  feed: FeedDirection,
): Affine<'view', 'view'> {
  const toView = machineToView(feed);
  const change = then(inverseOf(settingMap(setting, before)), settingMap(setting, after));
  return then(then(inverseOf(toView), change), toView);
}

/** Where the middle of the leading edge lies in that view: away from the operator, or towards. */
export const leadingEdgeInView = (feed: FeedDirection): Point<'view'> =>
  apply(machineToView(feed), { x: 0, y: HALF.y });

const sideways = (x: number): 'right' | 'left' => (x > 0 ? 'right' : 'left');

/** Which way the cut goes when a setting of known direction goes from one value to another. */
export function settingMove(setting: MachineSetting, before: number, after: number, feed: FeedDirection): SettingMove {
  const seen = viewOfChange(setting, before, after, feed);
  const leading = leadingEdgeInView(feed);
  const ofEdge = displacement(seen, leading);
  const ofMiddle = displacement(seen, { x: 0, y: 0 });
  const right = displacement(seen, { x: HALF.x, y: 0 });
  switch (setting.actsOn) {
    case 'offset_across':
      return { kind: 'shift', mm: Math.abs(ofMiddle.x), towards: sideways(ofMiddle.x) };
    case 'offset_along':
      return {
        kind: 'shift',
        mm: Math.abs(ofMiddle.y),
        towards: ofMiddle.y * leading.y > 0 ? 'leading-edge' : 'trailing-edge',
      };
    case 'scale_across':
      return { kind: 'size', axis: 'across', isLarger: right.x > ofMiddle.x };
    case 'scale_along':
    case 'feed_length':
      return { kind: 'size', axis: 'along', isLarger: (ofEdge.y - ofMiddle.y) * leading.y > 0 };
    case 'rotation':
      return { kind: 'turn', isCounterClockwise: right.y > ofMiddle.y };
    case 'squareness':
      return { kind: 'lean', towards: sideways(ofEdge.x - ofMiddle.x) };
  }
}
