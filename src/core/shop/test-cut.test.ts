import fc from 'fast-check';
import { nextForce, testCutNeed, type ForceTried, type TestCutOutcome } from './test-cut';

const tried = (...list: readonly (readonly [number, TestCutOutcome])[]): readonly ForceTried[] =>
  list.map(([force, outcome]) => ({ force, outcome }));

describe('the next force to try', () => {
  it.each([
    ['nothing tried', tried(), { kind: 'begin' }],
    ['too little: a quarter more', tried([50, 'not_through']), { kind: 'try', force: 65, why: 'stronger' }],
    ['too much: a quarter less', tried([100, 'liner_cut']), { kind: 'try', force: 80, why: 'weaker' }],
    ['between the two', tried([50, 'not_through'], [100, 'liner_cut']), { kind: 'try', force: 75, why: 'between' }],
    ['clean: kept', tried([50, 'not_through'], [75, 'clean']), { kind: 'keep', force: 75 }],
    ['nothing between', tried([50, 'not_through'], [55, 'liner_cut']), { kind: 'depth' }],
    ['more did less', tried([100, 'liner_cut'], [120, 'not_through']), { kind: 'contradiction' }],
    ['torn', tried([80, 'torn']), { kind: 'slower' }],
    ['the weakest step still cuts into the liner', tried([5, 'liner_cut']), { kind: 'depth' }],
  ] as const)('%s', (_, list, expected) => {
    expect(nextForce(list, 'gf')).toEqual(expected);
  });
  it('finds any window two steps wide or wider, from anywhere between 20 and 450 gf, in at most 22 tries (property)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 400 }),
        fc.integer({ min: 10, max: 80 }),
        fc.integer({ min: 4, max: 90 }),
        (least, width, start) => {
          const list: ForceTried[] = [];
          let force = start * 5;
          for (let i = 0; i < 22; i++) {
            const outcome = force < least ? 'not_through' : force > least + width ? 'liner_cut' : 'clean';
            list.push({ force, outcome });
            const next = nextForce(list, 'gf');
            if (next.kind === 'keep') break;
            expect(next.kind).toBe('try');
            if (next.kind === 'try') force = next.force;
          }
          expect(list.at(-1)?.outcome).toBe('clean');
        },
      ),
    );
  });
});

describe('a test cut before a job', () => {
  it.each([
    ['never cut', [], null, 'never'],
    ['cut clean, no blade told', [{ atMs: 1, outcome: 'clean' }], null, null],
    ['cut clean with this blade', [{ atMs: 3, outcome: 'clean' }], 2, null],
    ['cut clean with the blade before', [{ atMs: 1, outcome: 'clean' }], 2, 'new-blade'],
    [
      'the last one was not clean',
      [
        { atMs: 3, outcome: 'clean' },
        { atMs: 4, outcome: 'torn' },
      ],
      2,
      'not-clean',
    ],
  ] as const)('%s', (_, made, bladeAtMs, need) => {
    expect(testCutNeed(made, bladeAtMs)).toBe(need);
  });
});
