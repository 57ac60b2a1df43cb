import { parentPort, workerData } from 'node:worker_threads';
import { COMPUTATIONS, type ComputationName } from '@/compute/computations';

/** Computes one thing and ends: what takes too long or too much ends with its thread, not with the server. */
const { name, raw } = workerData as { readonly name: ComputationName; readonly raw: unknown };
parentPort?.postMessage(COMPUTATIONS[name].run(raw));
