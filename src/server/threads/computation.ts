import { COMPUTATIONS, type ComputationName, type InputIssue } from '@/compute/computations';

/** One question as a thread of the pool takes it. */
export interface Question {
  readonly name: ComputationName;
  /** Bytes of JSON as they came in, parsed where they can be given up with the thread. */
  readonly body: Uint8Array;
}

/** What a thread tells: an answer as bytes of JSON, issues or a named problem, or that the body was no JSON. */
export type ThreadAnswer =
  | { readonly kind: 'value'; readonly json: Uint8Array }
  | { readonly kind: 'not-json'; readonly detail: string }
  | { readonly kind: 'not-understood'; readonly issues: readonly InputIssue[] }
  | { readonly kind: 'refused'; readonly error: { readonly kind: string } };

function parsed(body: Uint8Array): { readonly raw: unknown } | { readonly detail: string } {
  try {
    return { raw: JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body)) };
  } catch (error) {
    return { detail: error instanceof Error ? error.message : '' };
  }
}

/** Computes one thing for the pool: reading the question and writing the answer are done here as well. */
export function answerQuestion({ name, body }: Question): ThreadAnswer {
  const question = parsed(body);
  if ('detail' in question) return { kind: 'not-json', detail: question.detail };
  const answered = COMPUTATIONS[name].run(question.raw);
  if (!answered.parsed) return { kind: 'not-understood', issues: answered.issues };
  if (!answered.result.ok) return { kind: 'refused', error: answered.result.error };
  return { kind: 'value', json: new TextEncoder().encode(JSON.stringify(answered.result.value)) };
}
