import { v5 as namedUuid } from 'uuid';

/** What the writer under the kills writes, by turns. */
const KINDS = ['daily', 'happened', 'shown', 'testCut', 'calibration', 'lockedJob'] as const;
export type Kind = (typeof KINDS)[number];

const PLACE = '10000000-0000-4000-8000-000000000000';
/** The same id for the same number, whoever asks: what is asked for again after a cut-off is the same thing. */
export const idOf = (n: number, what = ''): string => namedUuid(`${String(n)} ${what}`, PLACE);
export const kindOf = (n: number): Kind => KINDS[n % KINDS.length] ?? 'daily';
