import { parentPort, workerData } from 'node:worker_threads';
import { doFileWork, type FileWork } from '@/compute/cut-file';

/** Reads or moves one cut file and ends: a file that takes too long or too much ends with its thread, not with the server. */
parentPort?.postMessage(doFileWork(workerData as FileWork));
