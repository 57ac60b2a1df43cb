import { fail, type Result } from '@/core/result';
import { COMPUTATION_NAMES, COMPUTATIONS, isComputation } from './computations';

/** Why nothing was computed; further fields tell the details of each kind. */
export interface ComputationProblem {
  readonly kind: string;
}

const problem = (kind: string, rest: object): Result<never, ComputationProblem> => fail({ kind, ...rest });

/** One computation as a command line asks for it: its name, and its input as JSON. @returns what is written as JSON. */
export function answer(what: string, json: string): Result<object, ComputationProblem> {
  if (!isComputation(what)) return problem('unknown-command', { got: what, expected: COMPUTATION_NAMES });
  let raw: unknown;
  try {
    raw = JSON.parse(json);
  } catch (error) {
    return problem('not-json', { detail: error instanceof Error ? error.message : '' });
  }
  const done = COMPUTATIONS[what].run(raw);
  if (done.parsed) return done.result;
  return problem('not-understood', {
    detail: done.issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('\n'),
  });
}
