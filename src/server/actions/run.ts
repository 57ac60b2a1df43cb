import 'server-only';
import { headers } from 'next/headers';
import { unstable_rethrow } from 'next/navigation';
import type { z } from 'zod';
import type { Result } from '@/core/result';
import { REQUEST_NUMBER } from '../log';
import { isLetIn } from '../services/door-guard';
import { reportFault } from '../services/faults';

/** The one character that PostgreSQL keeps in no text. */
function holdsNul(value: unknown): boolean {
  if (typeof value === 'string') return value.includes('\0');
  return typeof value === 'object' && value !== null && Object.values(value).some(holdsNul);
}

/** What every action answers: plain data, words for the one at the machine. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      /** refused: it will never be taken as it is. not-saved: nothing is wrong with it; the same may be asked again. */
      readonly kind: 'refused' | 'not-saved';
      readonly message: string;
    };

const refused = (message: string) => ({ ok: false, kind: 'refused', message }) as const;
const notSaved = (message: string) => ({ ok: false, kind: 'not-saved', message }) as const;

/** Asks who is let in, parses what came in, runs the work, and turns problems into words. Faults are logged, never shown. */
export async function answer<S extends z.ZodType, T>(
  schema: S,
  raw: unknown,
  work: (input: z.infer<S>) => Promise<Result<T, { readonly message: string }>>,
): Promise<Answer<T>> {
  try {
    if (!(await isLetIn())) return notSaved('Sign in first: what you entered is still here.');
    const parsed = schema.safeParse(raw);
    if (!parsed.success) {
      const issue = parsed.error.issues[0];
      return refused(issue ? `${issue.path.join(' ')}: ${issue.message}` : 'That could not be understood.');
    }
    if (holdsNul(parsed.data)) return refused('There is a character in it that cannot be saved (NUL).');
    const done = await work(parsed.data);
    return done.ok ? { ok: true, value: done.value } : refused(done.error.message);
  } catch (error) {
    unstable_rethrow(error);
    return notSaved(reportFault(error, (await headers()).get(REQUEST_NUMBER)));
  }
}
