import 'server-only';
import type { Family } from '@/core/shop/words';

export type CautionMoment = 'print' | 'cut' | 'read' | 'settings';

const ALWAYS: Readonly<Record<CautionMoment, readonly string[]>> = {
  print: ['Let the print dry before it goes into the cutter.'],
  cut: [
    'First run of any cut file: tool up, hand at stop. Watch where it goes, then cut.',
    'Hands off sheet, mat and rollers while marks are read or the machine pauses. Never look into a pointer light.',
    'Follow your machine\u2019s manual and local rules; let trained people change blades.',
  ],
  read: [
    'Feel a cut only when the machine stands still and waits for nothing. Account for every loose strip and disc: they jam rollers and eye.',
  ],
  settings: ['Write the old value down before you change it. First run with a new setting: tool up, hand at stop.'],
};

const OF_FAMILY: Readonly<Partial<Record<Family, Readonly<Partial<Record<CautionMoment, readonly string[]>>>>>> = {
  F1: { read: ['Bend the mat away, not the paper.'] },
  F1c: { read: ['Bend the mat away, not the paper.'] },
  F2: { print: ['The platen and heaters are hot once the machine is on line.'] },
  F3: { cut: ['Lower the rollers with fingers clear of them.'] },
  F4: {
    print: [
      'Solvent prints gas out before they are laminated: hours or days, as the ink\u2019s maker says, in moving air.',
    ],
    cut: ['The stack is thicker now: make the machine\u2019s own test cut again before this one.'],
  },
  F5: {
    print: ['Cover each mark with tape before the backing goes on.'],
    cut: [
      'Bare the marks by cutting through the backing alone: blade away from fingers, not over the platen, not into the mark.',
    ],
  },
  F6: { cut: ['Never feed a cut or weeded sheet back through a printer.'] },
  F7: { cut: ['The mat must lie flat and the camera must not be moved after its profile was made.'] },
  F8: { cut: ['Drive the tool by the arrow keys with the tool up, and look from straight above.'] },
  F9: { print: ['The platen and heaters are hot once the machine is on line.'] },
};

/** What can hurt at this step with this kind of work; the machine's manual, local rules and trained people come first. */
export function cautionsFor(family: Family, moment: CautionMoment): readonly string[] {
  return [...ALWAYS[moment], ...(OF_FAMILY[family]?.[moment] ?? [])];
}
