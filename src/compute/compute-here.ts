import { COMPUTATIONS, type Answered, type ComputationName } from './computations';

/** How a computation is run: in a thread with bounds, or where it is asked for. */
export type Compute = (name: ComputationName, raw: unknown) => Promise<Answered>;

/** Without a thread and its bounds: for what does not come from outside. */
export const computeHere: Compute = (name, raw) => Promise.resolve(COMPUTATIONS[name].run(raw));
