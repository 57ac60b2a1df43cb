import { COMPUTATIONS, type Answered, type ComputationName } from '@/compute/computations';

/** The same computation without a thread of its own. */
export const computeInThread = (name: ComputationName, raw: unknown): Promise<Answered> =>
  Promise.resolve(COMPUTATIONS[name].run(raw));
