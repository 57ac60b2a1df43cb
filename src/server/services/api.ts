import 'server-only';
import type { z } from 'zod';
import { correctionWork, presented, surveyed, surveyWork } from '@/compute/cut-file';
import { COMPUTATIONS, type ComputationName } from '@/compute/computations';
import { ComputeCorrectedFile, ComputeSurvey } from '@/contracts/compute';
import { fileInThread } from './file-thread';

/** RFC 9457: what went wrong, told so that a program can act on it and a person understands it. */
export interface ProblemDetails {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail?: string;
  readonly errors?: readonly { readonly pointer: string; readonly detail: string }[];
}

export type ApiAnswer =
  { readonly ok: true; readonly value: object } | { readonly ok: false; readonly problem: ProblemDetails };

export const problemOf = (status: number, kind: string, title: string, detail?: string): ProblemDetails => ({
  type: `/api/v1/problems/${kind}`,
  title,
  status,
  ...(detail !== undefined && { detail }),
});

/** Path of a value inside what was sent. Source: RFC 6901 (JSON Pointer). */
const pointerOf = (path: readonly PropertyKey[]): string =>
  path.map((p) => `/${String(p).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

function notUnderstood(error: z.ZodError): ApiAnswer {
  const errors = error.issues.slice(0, 50).map((i) => ({ pointer: pointerOf(i.path), detail: i.message }));
  return {
    ok: false,
    problem: { ...problemOf(422, 'not-understood', 'What was sent does not fit what is expected'), errors },
  };
}

/** A named problem of the computation itself; whatever it names goes along. */
function refused(error: { readonly kind: string; readonly words?: string; readonly where?: string }): ApiAnswer {
  const { kind, words, where, ...rest } = error;
  const named = Object.entries(rest).map(([name, value]) => `${name}: ${String(value)}`);
  const place = where === undefined ? undefined : `(${where})`;
  const detail = [words, place, ...named].filter((w) => w !== undefined).join(' ');
  return { ok: false, problem: problemOf(422, kind, 'There is no answer to this', detail === '' ? undefined : detail) };
}

/** Files are read in a thread of their own; everything else is quick. */
async function fileAnswer(name: 'drawing' | 'corrected-file', raw: unknown): Promise<ApiAnswer> {
  if (name === 'drawing') {
    const parsed = ComputeSurvey.safeParse(raw);
    if (!parsed.success) return notUnderstood(parsed.error);
    const survey = await fileInThread(surveyWork(parsed.data));
    if (!survey.ok) return refused(survey.error);
    return 'groups' in survey.value ? { ok: true, value: surveyed(survey.value) } : wrongAnswer();
  }
  const parsed = ComputeCorrectedFile.safeParse(raw);
  if (!parsed.success) return notUnderstood(parsed.error);
  const moved = await fileInThread(correctionWork(parsed.data));
  if (!moved.ok) return refused(moved.error);
  return 'bytes' in moved.value ? { ok: true, value: presented(moved.value, parsed.data.file) } : wrongAnswer();
}

function wrongAnswer(): never {
  throw new Error('the thread answered another question');
}

/** One computation as other software asks for it. */
export async function answerApi(name: ComputationName, raw: unknown): Promise<ApiAnswer> {
  if (name === 'drawing' || name === 'corrected-file') return fileAnswer(name, raw);
  const done = COMPUTATIONS[name].run(raw);
  if (!done.parsed) return notUnderstood(done.error);
  return done.result.ok ? { ok: true, value: done.result.value } : refused(done.result.error);
}
