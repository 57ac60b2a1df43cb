export interface PrintFactor {
  readonly factor: number;
  readonly isRight: boolean;
  /** Likely cause in words, ends with a full stop. */
  readonly likely: string;
}

/** Within this share of the line a rule cannot tell a print from a true one; the commonest fit-to-page is 3 %. */
export const RIGHT_SHARE = 0.005;

interface Cause {
  readonly factor: number;
  readonly within: number;
  readonly words: string;
}

const CAUSES: readonly Cause[] = [
  {
    factor: 0.75,
    within: 0.01,
    words:
      'The drawing was made for 96 to the inch and read at 128, or printed at 75 %. Check the import scale of the program.',
  },
  {
    factor: 4 / 3,
    within: 0.015,
    words: 'The drawing was made for 96 to the inch and read at 72. Type the size printed on its border.',
  },
  { factor: 0.97, within: 0.022, words: 'That is what "fit to page" or "shrink to printable area" does.' },
  { factor: 1.03, within: 0.022, words: 'That is what "fill page" or borderless printing does.' },
];

/** What a measured check line says about the print, with the likely cause. Common practice, no published source. */
export function printFactor(nominalMm: number, lineMm: number): PrintFactor {
  const factor = lineMm / nominalMm;
  const isRight = Math.abs(factor - 1) <= RIGHT_SHARE;
  const cause = CAUSES.find((c) => Math.abs(factor - c.factor) <= c.within);
  return {
    factor,
    isRight,
    likely: isRight ? 'The print is at actual size.' : (cause?.words ?? 'Some scaling was on when it was printed.'),
  };
}
