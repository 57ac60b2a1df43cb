import type { NextForce, TestCutNeed } from '@/core/shop/test-cut';

const figure = (value: number): string => String(Math.round(value * 100) / 100);

/** What to do next with the force, as a shop hand would say it. @param forceBefore used last, with a blade before; null: none. */
export function nextForceWords(next: NextForce, unit: string, forceBefore: number | null): string {
  switch (next.kind) {
    case 'begin':
      if (forceBefore !== null)
        return `A new blade cuts deeper: begin below the ${figure(forceBefore)} ${unit} of the one before, and go up until the small figure lifts.`;
      return 'Begin low, as the manual has it for this material, and go up until the small figure lifts.';
    case 'keep':
      return `Keep ${figure(next.force)} ${unit}: it cut clean.`;
    case 'try':
      return {
        stronger: `Try ${figure(next.force)} ${unit}: it hung on, so a little more.`,
        weaker: `Try ${figure(next.force)} ${unit}: it cut into the liner, so a little less.`,
        between: `Try ${figure(next.force)} ${unit}: between the one that hung on and the one that cut into the liner.`,
      }[next.why];
    case 'depth':
      return 'No force between them is left: set the blade\u2019s depth, as its manual says, then begin anew.';
    case 'contradiction':
      return 'More force did less than a smaller one: look whether the blade is worn, chipped or loose, and whether it is the same material.';
    case 'slower':
      return 'More or less force does not mend torn edges: cut slower, look at the blade\u2019s tip and its depth.';
  }
}

export const NEED_WORDS: Readonly<Record<TestCutNeed, string>> = {
  never: 'no test cut is written down yet',
  'new-blade': 'not cut clean since the new blade',
  'not-clean': 'the last test cut was not clean',
};
