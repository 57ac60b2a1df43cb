import 'server-only';
import { resolve } from 'node:path';
import type { Compute } from '@/compute/compute-here';
import type { Answered } from '@/compute/computations';
import { fail, type Result } from '@/core/result';
import type { FileProblem } from '@/formats/cut-file/cut-file';
import { askChild, type ChildBounds, type ChildFailure } from './bounded-child';
import type { DecoderTask } from './decoder-task';

/** Made from src/server/threads/decoder.ts by the build. */
const DECODER = resolve('.red-plumb/threads/decoder.mjs');
const BOUNDS: ChildBounds = { longestMs: 30_000, mostBytes: 700e6 };

const WORDS: Readonly<Record<ChildFailure, string>> = {
  'took-too-long': 'Reading the file took longer than 30 seconds. Save a simpler one.',
  'took-too-much-memory': 'Reading the file took more than 700 MB of memory. Save a smaller one.',
  'ended-without-an-answer': 'The file could not be read: it may be damaged. Save it again.',
};

async function ask<T>(task: DecoderTask): Promise<Result<T, string>> {
  const answer = await askChild(DECODER, task, BOUNDS);
  return answer.ok ? (answer.value as Result<T, string>) : fail(WORDS[answer.failure]);
}

/** Reads the head of a picture that was handed in, in a process of its own. Fails with words. */
export const readPictureFacts = <T>(content: Uint8Array): Promise<Result<T, string>> =>
  ask<T>({ kind: 'picture-facts', content });

/** A picture that was handed in as a print file takes it, made in a process of its own. Fails with words. */
export const makePrintablePicture = <T>(content: Uint8Array): Promise<Result<T, string>> =>
  ask<T>({ kind: 'printable-picture', content });

/** Computes in a process of its own: for questions that hold drawings which somebody handed in. */
export const computeInChild: Compute = async (name, raw) => {
  const answer = await askChild(DECODER, { kind: 'compute', name, raw } satisfies DecoderTask, BOUNDS);
  if (answer.ok) return answer.value as Answered;
  const problem: FileProblem = { kind: 'too-large', where: 'file', words: WORDS[answer.failure] };
  return { parsed: true, result: fail(problem) };
};
