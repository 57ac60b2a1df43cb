/** Moves after a verdict of cannot tell. */
export const NEXT_MOVES = ['another-load', 'more-looks', 'correct-again', 'wider-limit'] as const;
export type NextMove = (typeof NEXT_MOVES)[number];

/** Loads of one check after which no move that takes another is recommended. */
export const MOST_LOADS = 6;

/** Largest number of times that one move is recommended in a check, so that following it ends. */
export const MOST_OF_ONE = 2;

export interface NextMoveFacts {
  /** Worst corner of the estimate, and the bound of the true one. */
  readonly worstMm: number;
  readonly upperMm: number;
  readonly limitMm: number;
  /** Loads that the estimate stands on. */
  readonly loads: number;
  /** Loads cut since the check began. */
  readonly loadsInAll: number;
  /** Share of reading in the variance at the worst corner; the rest is loading. */
  readonly readingShare: number;
  /** Worst corner that another correction would leave; null where none is to be made. */
  readonly leftoverMm: number | null;
  /** How often each was done since the check began. */
  readonly done: Readonly<Record<Exclude<NextMove, 'wider-limit'>, number>>;
}

export interface Expected {
  readonly move: NextMove;
  /** Bound of the worst corner that is to be expected after it, mm. */
  readonly upperMm: number;
}

/**
 * Expected bound after each open move, lowest first, mm. First order: the estimate stays and its standard uncertainty falls
 * with the number of loads or looks; a correction starts again from one load.
 */
export function expectedMoves(facts: NextMoveFacts): readonly Expected[] {
  const { worstMm, upperMm, loads, loadsInAll, readingShare, leftoverMm, done } = facts;
  const isLoadLeft = loadsInAll < MOST_LOADS;
  const allowance = Math.max(0, upperMm - worstMm);
  const after: Readonly<Record<Exclude<NextMove, 'wider-limit'>, number | null>> = {
    'another-load': isLoadLeft ? worstMm + allowance * Math.sqrt(loads / (loads + 1)) : null,
    'more-looks': worstMm + allowance * Math.sqrt(1 - readingShare / 2),
    'correct-again': leftoverMm === null || !isLoadLeft ? null : leftoverMm + allowance * Math.sqrt(loads),
  };
  return (['another-load', 'more-looks', 'correct-again'] as const)
    .flatMap((move) => {
      const upper = after[move];
      return upper === null || done[move] >= MOST_OF_ONE ? [] : [{ move, upperMm: upper }];
    })
    .sort((a, b) => a.upperMm - b.upperMm);
}

/**
 * The move with the lowest expected bound. If no open move is expected to reach the limit, or to lower the bound by a tenth,
 * the answer is a wider limit or border.
 */
export function nextMove(facts: NextMoveFacts): Expected {
  const [best] = expectedMoves(facts);
  const isWorthIt = best !== undefined && (best.upperMm <= facts.limitMm || best.upperMm < 0.9 * facts.upperMm);
  return isWorthIt ? best : { move: 'wider-limit', upperMm: facts.upperMm };
}
