import { displacement, inverseOf, then, type Point } from '../geometry/affine';
import { FACES, mapOnSheet, sheetToView, TURNS, viewTurnOf, type FeedDirection, type Load } from '../geometry/load';
import { settingMap } from './machine-setting';
import { leadingEdgeInView, settingMove, viewOfChange } from './setting-move';
import { testSetting } from './setting.testing';

const FEEDS = ['away', 'towards'] as const;
const SENSES = [1, -1] as const;
const loads: readonly Load[] = TURNS.flatMap((turnDeg) => FACES.map((face) => ({ turnDeg, face })));

/** Which way a point of the view went, as a person would point. */
function pointed({ x, y }: Point<'view'>, feed: FeedDirection): string {
  if (Math.abs(x) > Math.abs(y)) return x > 0 ? 'right' : 'left';
  return y * leadingEdgeInView(feed).y > 0 ? 'leading-edge' : 'trailing-edge';
}

describe('the direction of a setting, in words and in pictures', () => {
  it.each(FEEDS.flatMap((feed) => SENSES.map((sense) => [feed, sense] as const)))(
    'fed %s, plus %s: an offset goes where the picture of the setting and the picture of the sheet show it, however the sheet lies',
    (feed, sense) => {
      for (const actsOn of ['offset_across', 'offset_along'] as const)
        for (const step of [0.4, -0.4]) {
          const setting = testSetting({ actsOn, sense });
          const move = settingMove(setting, 1, 1 + step, feed);
          const said = move.kind === 'shift' ? move.towards : move.kind;
          expect(pointed(displacement(viewOfChange(setting, 1, 1 + step, feed), { x: 0, y: 0 }), feed)).toBe(said);
          const change = then(inverseOf(settingMap(setting, 1)), settingMap(setting, 1 + step));
          for (const load of loads) {
            const onSheet = displacement(mapOnSheet(change, load), { x: 0, y: 0 });
            const asDrawn = { x: load.face === 'ink-down' ? -onSheet.x : onSheet.x, y: onSheet.y };
            const t = sheetToView(viewTurnOf(load, feed));
            const seen = { x: t.xx * asDrawn.x + t.xy * asDrawn.y, y: t.yx * asDrawn.x + t.yy * asDrawn.y };
            expect([load, pointed(seen, feed)]).toEqual([load, said]);
          }
        }
    },
  );

  it.each([
    ['away', 'offset_across', 1, { kind: 'shift', towards: 'right' }],
    ['towards', 'offset_across', 1, { kind: 'shift', towards: 'left' }],
    ['away', 'offset_along', -1, { kind: 'shift', towards: 'trailing-edge' }],
    ['towards', 'offset_along', 1, { kind: 'shift', towards: 'leading-edge' }],
    ['away', 'scale_across', 1, { kind: 'size', axis: 'across', isLarger: true }],
    ['towards', 'scale_across', -1, { kind: 'size', axis: 'across', isLarger: false }],
    ['towards', 'scale_along', 1, { kind: 'size', axis: 'along', isLarger: true }],
    ['towards', 'feed_length', -1, { kind: 'size', axis: 'along', isLarger: false }],
    ['away', 'rotation', 1, { kind: 'turn', isCounterClockwise: true }],
    ['towards', 'rotation', 1, { kind: 'turn', isCounterClockwise: true }],
    ['towards', 'rotation', -1, { kind: 'turn', isCounterClockwise: false }],
    // The leading edge leans to machine +x: right of one before a mat, left of one before a roll that comes out.
    ['away', 'squareness', 1, { kind: 'lean', towards: 'right' }],
    ['towards', 'squareness', 1, { kind: 'lean', towards: 'left' }],
  ] as const)('fed %s, %s, plus %s', (feed, actsOn, sense, wanted) => {
    const unit = actsOn.startsWith('offset')
      ? 'mm'
      : actsOn === 'rotation' || actsOn === 'squareness'
        ? 'degree'
        : 'percent';
    expect(settingMove(testSetting({ actsOn, sense, unit }), 0, 0.4, feed)).toMatchObject(wanted);
  });

  it('the leading edge is away from one before a mat, and towards one before a roll that comes out', () => {
    expect(leadingEdgeInView('away').y).toBeGreaterThan(0);
    expect(leadingEdgeInView('towards').y).toBeLessThan(0);
  });
});
