import { NO_ERROR, type ErrorParameters } from '../geometry/error-parameters';
import type { Part } from '../verdict/parts';

/** What an operator sees on the cut sheet, before anything is measured. */
export const SYMPTOM_IDS = [
  'one-side',
  'all-round',
  'one-end',
  'turned',
  'leaning',
  'each-time',
  'in-places',
  'not-closed',
] as const;
export type SymptomId = (typeof SYMPTOM_IDS)[number];

/** What to do next: a check of the usual kinds, another load, the test of the marks, or something to look at first. */
export type NextStep = 'quick-check' | 'full-check' | 'another-load' | 'mark-test' | 'look';

export interface Symptom {
  readonly id: SymptomId;
  readonly title: string;
  readonly words: string;
  /** Parts of the error that look so. */
  readonly parts: readonly Part[];
  /** Drawn much enlarged; several where it is another each time, none where it is no error of the whole sheet. */
  readonly drawn: readonly ErrorParameters[];
  /** Other things that look the same and are looked at first, the likeliest first. Common practice, no published source. */
  readonly lookFirst: readonly string[];
  readonly next: NextStep;
}

const shift = (offsetAcrossMm: number, offsetAlongMm: number): ErrorParameters => ({
  ...NO_ERROR,
  offsetAcrossMm,
  offsetAlongMm,
});

export const SYMPTOMS: readonly Symptom[] = [
  {
    id: 'one-side',
    title: 'White on one side, cut into the print on the other',
    words: 'The same everywhere on the sheet, and with every sheet.',
    parts: ['offsetAcrossMm', 'offsetAlongMm'],
    drawn: [shift(8, -5)],
    lookFirst: ['Is the right file, page and print mode in use? A correction belongs to one print mode.'],
    next: 'quick-check',
  },
  {
    id: 'all-round',
    title: 'White all round, or cut into the print all round',
    words: 'The cut is larger or smaller than the print.',
    parts: ['scaleAcross', 'scaleAlong'],
    drawn: [{ ...NO_ERROR, scaleAcross: 0.14, scaleAlong: 0.14 }],
    lookFirst: [
      'Was it printed at 100 %, without "fit to page" and without borderless enlargement?',
      'Is the border the same on a small and on a large piece? Then it is the outline\u2019s own offset, not the machine.',
    ],
    next: 'full-check',
  },
  {
    id: 'one-end',
    title: 'Good at one end, worse towards the other',
    words: 'It grows with the distance from where the cut began.',
    parts: ['scaleAlong', 'scaleAcross'],
    drawn: [{ ...NO_ERROR, scaleAlong: 0.14, offsetAlongMm: 10 }],
    lookFirst: [
      'On a roll: does the material run straight, and do the rollers hold it? Slip looks the same.',
      'Laminated work stretches: measure it laminated.',
    ],
    next: 'full-check',
  },
  {
    id: 'turned',
    title: 'Turned: out to one side at one end, to the other at the other',
    words: 'The cut is square in itself, but lies at an angle.',
    parts: ['rotationRad'],
    drawn: [{ ...NO_ERROR, rotationRad: 0.09 }],
    lookFirst: [
      'Is it turned the same way with every load? If not, it is how the sheet was laid in, and the marks are not used for it.',
    ],
    next: 'full-check',
  },
  {
    id: 'leaning',
    title: 'Leaning: a square is cut as a slanted one',
    words: 'One diagonal is longer than the other.',
    parts: ['squareness'],
    drawn: [{ ...NO_ERROR, squareness: 0.14 }],
    lookFirst: [
      'Are the print\u2019s own diagonals equal? Lay a rule along both: the printer may lean, not the cutter.',
    ],
    next: 'full-check',
  },
  {
    id: 'each-time',
    title: 'Different every time',
    words: 'The next sheet is out another way.',
    parts: [],
    drawn: [shift(7, 4), shift(-6, 6), shift(3, -8)],
    lookFirst: [
      'Light: a lamp, the sun or a shadow on the marks.',
      'The marks: gloss, weak contrast, clipped by the printer, too near the edge.',
      'The carrier: an old mat, a wrinkle, rollers on a mark.',
    ],
    next: 'another-load',
  },
  {
    id: 'in-places',
    title: 'Out in places only',
    words: 'Most of the sheet is good, one corner or one piece is not.',
    parts: [],
    drawn: [],
    lookFirst: [
      'Does the sheet lie flat there? A lifted edge or a bubble moves under the tool.',
      'Were pieces moved after printing, or not grouped?',
      'Is the blade dull, or the force short? Corners are then pulled.',
    ],
    next: 'look',
  },
  {
    id: 'not-closed',
    title: 'Circles do not close, corners are hooked',
    words: 'Start and end of a cut do not meet.',
    parts: [],
    drawn: [],
    lookFirst: [
      'Set the blade offset first, as the machine\u2019s manual says; then cut the check figure on a check sheet again.',
    ],
    next: 'look',
  },
];

export function symptomOf(id: string): Symptom | undefined {
  return SYMPTOMS.find((s) => s.id === id);
}

/** A part of the last measured error, as it was judged. */
export interface KnownPart {
  readonly part: Part;
  readonly effectMm: number;
  readonly effectIntervalMm: number;
}

export interface SymptomFacts {
  /** What the latest check found, with the settings as they are now; none: not checked. */
  readonly parts: readonly KnownPart[] | null;
  /** Whether its loads were told apart, and how. */
  readonly fault: 'calibration' | 'reading' | 'both' | 'none' | null;
  readonly toleranceMm: number;
  readonly isMarkUseKnown: boolean;
}

export type Evidence =
  /** The latest check found what this symptom would be. */
  | { readonly kind: 'agrees'; readonly part: Part; readonly effectMm: number }
  /** The latest check bounds it: what is seen cannot be this, or came since. */
  | { readonly kind: 'contradicts'; readonly atMostMm: number }
  | { readonly kind: 'not-measured' };

/** A fifth of the tolerance: from here on a part is worth correcting (measurement model, section 5). */
const WORTH_SHARE = 0.2;

/** Whether what was measured last speaks for a symptom, against it, or not at all. */
export function evidenceFor(symptom: Symptom, { parts, fault, toleranceMm }: SymptomFacts): Evidence {
  if (symptom.id === 'each-time') {
    if (fault === null) return { kind: 'not-measured' };
    const isReading = fault === 'reading' || fault === 'both';
    return isReading
      ? { kind: 'agrees', part: 'offsetAcrossMm', effectMm: toleranceMm }
      : { kind: 'contradicts', atMostMm: toleranceMm };
  }
  const own = (parts ?? []).filter((p) => symptom.parts.includes(p.part));
  if (own.length === 0) return { kind: 'not-measured' };
  const largest = own.reduce((a, b) => (Math.abs(b.effectMm) > Math.abs(a.effectMm) ? b : a));
  const isWorth = Math.abs(largest.effectMm) > WORTH_SHARE * toleranceMm;
  const isSure = Math.abs(largest.effectMm) > largest.effectIntervalMm;
  if (isWorth && isSure) return { kind: 'agrees', part: largest.part, effectMm: Math.abs(largest.effectMm) };
  return { kind: 'contradicts', atMostMm: Math.max(...own.map((p) => Math.abs(p.effectMm) + p.effectIntervalMm)) };
}

/** What to do next, by symptom and by what is known: a turn that is never used is told by the test of the marks. */
export function nextStepFor(symptom: Symptom, facts: SymptomFacts): NextStep {
  if (symptom.id === 'turned' && !facts.isMarkUseKnown && facts.parts !== null) return 'mark-test';
  return symptom.next;
}
