import 'server-only';
import type { ComputationName, InputIssue } from '@/compute/computations';
import { computationPool, type ComputationPool } from './computation-pool';

/** RFC 9457: what went wrong, told so that a program can act on it and a person understands it. */
export interface ProblemDetails {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail?: string;
  readonly errors?: readonly { readonly pointer: string; readonly detail: string }[];
}

/** An answer as bytes of JSON, or what went wrong. */
export type ApiAnswer =
  { readonly ok: true; readonly json: Uint8Array } | { readonly ok: false; readonly problem: ProblemDetails };

export const problemOf = (status: number, kind: string, title: string, detail?: string): ProblemDetails => ({
  type: `/api/v1/problems/${kind}`,
  title,
  status,
  ...(detail !== undefined && { detail }),
});

/** Path of a value inside what was sent. Source: RFC 6901 (JSON Pointer). */
const pointerOf = (path: InputIssue['path']): string =>
  path.map((p) => `/${String(p).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

function notUnderstood(issues: readonly InputIssue[]): ProblemDetails {
  const errors = issues.map(({ path, message }) => ({ pointer: pointerOf(path), detail: message }));
  return { ...problemOf(422, 'not-understood', 'What was sent does not fit what is expected'), errors };
}

/** A named problem of the computation itself; whatever it names goes along. */
function refused(error: { readonly kind: string; readonly words?: string; readonly where?: string }): ProblemDetails {
  const { kind, words, where, ...rest } = error;
  const named = Object.entries(rest).map(([name, value]) => `${name}: ${String(value)}`);
  const place = where === undefined ? undefined : `(${where})`;
  const detail = [words, place, ...named].filter((w) => w !== undefined).join(' ');
  return problemOf(422, kind, 'There is no answer to this', detail === '' ? undefined : detail);
}

/** One computation as other software asks for it, in a thread of the pool. @param body bytes of JSON as they came in */
export async function answerApi(
  name: ComputationName,
  body: Uint8Array,
  pool: ComputationPool = computationPool(),
): Promise<ApiAnswer> {
  const answer = await pool.ask(name, body);
  switch (answer.kind) {
    case 'value':
      return { ok: true, json: answer.json };
    case 'not-json':
      return { ok: false, problem: problemOf(400, 'not-json', 'The body is no JSON', answer.detail) };
    case 'busy':
      return {
        ok: false,
        problem: problemOf(503, 'busy', 'Too many questions at once', 'Ask again in a few seconds.'),
      };
    case 'too-much':
      return {
        ok: false,
        problem: problemOf(
          422,
          'too-large',
          'There is no answer to this',
          'It took longer than 30 s or more than 600 MB.',
        ),
      };
    case 'not-understood':
      return { ok: false, problem: notUnderstood(answer.issues) };
    case 'refused':
      return { ok: false, problem: refused(answer.error) };
  }
}
