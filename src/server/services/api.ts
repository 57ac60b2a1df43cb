import 'server-only';
import { COMPUTATIONS, type ComputationName, type InputIssue } from '@/compute/computations';
import { computeInThread } from './computation-thread';

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
const pointerOf = (path: InputIssue['path']): string =>
  path.map((p) => `/${String(p).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

function notUnderstood(issues: readonly InputIssue[]): ApiAnswer {
  const errors = issues.map(({ path, message }) => ({ pointer: pointerOf(path), detail: message }));
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

/** Files come from anywhere: they are read in a thread of their own. Everything else is quick. */
const IN_THREAD: ReadonlySet<ComputationName> = new Set(['drawing', 'corrected-file']);

/** One computation as other software asks for it. */
export async function answerApi(name: ComputationName, raw: unknown): Promise<ApiAnswer> {
  const answered = IN_THREAD.has(name) ? await computeInThread(name, raw) : COMPUTATIONS[name].run(raw);
  if (!answered.parsed) return notUnderstood(answered.issues);
  return answered.result.ok ? { ok: true, value: answered.result.value } : refused(answered.result.error);
}
