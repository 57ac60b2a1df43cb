import { redirect } from 'next/navigation';
import { SignIn } from '@/contracts/inputs';
import { isBeyondLoopback, sendsCookiesSecurely } from '@/env/environment';
import { database } from '@/server/services/database';
import { signIn, type DoorProblem } from '@/server/services/door';
import { DOOR_COOKIE } from '@/server/services/door-cookie';
import { signInPage } from '@/server/services/sign-in-page';

export const dynamic = 'force-dynamic';

/** Where to go after signing in: a path of this application, never another site. */
function localPath(to: string | null): string {
  const base = 'http://here.invalid';
  if (to === null || !to.startsWith('/') || !URL.canParse(to, base)) return '/';
  const { origin, pathname, search } = new URL(to, base);
  // Two slashes at the beginning, left over from "/.//", would name another site.
  return origin === base && !pathname.startsWith('//') ? `${pathname}${search}` : '/';
}

const minutes = (until: Date): number => Math.max(1, Math.ceil((until.getTime() - Date.now()) / 60_000));

function words(problem: DoorProblem): string {
  switch (problem.kind) {
    case 'closed':
      return 'Phones are not let in just now.';
    case 'wait':
      return `Too many wrong passphrases. Try again in ${minutes(problem.untilAt)} min.`;
    case 'wrong':
      return `That is not the passphrase. Capital letters and spaces count. Tries left for now: ${problem.triesLeft}.`;
  }
}

const STATUS = { closed: 403, wait: 429, wrong: 401 } as const;

export function GET(request: Request): Response {
  if (!isBeyondLoopback()) redirect('/');
  return signInPage(200, localPath(new URL(request.url).searchParams.get('to')), '');
}

/** A right passphrase gets a cookie that scripts cannot read and other sites cannot send. */
export async function POST(request: Request): Promise<Response> {
  const form = await request.formData().catch(() => null);
  const input = SignIn.safeParse(form ? Object.fromEntries(form) : {});
  if (!input.success) return signInPage(400, '/', 'Type the passphrase.');
  const to = localPath(input.data.to);
  const done = await signIn(database(), input.data.passphrase);
  if (!done.ok) return refusedPage(done.error, to);
  const secure = sendsCookiesSecurely() ? '; Secure' : '';
  return new Response(null, {
    status: 303,
    headers: {
      location: to,
      'cache-control': 'no-store',
      'set-cookie': `${DOOR_COOKIE}=${done.value.cookie}; Path=/; HttpOnly; SameSite=Strict; Expires=${done.value.expiresAt.toUTCString()}${secure}`,
    },
  });
}

function refusedPage(problem: DoorProblem, to: string): Response {
  const page = signInPage(STATUS[problem.kind], to, words(problem));
  if (problem.kind === 'wait') page.headers.set('retry-after', String(60 * minutes(problem.untilAt)));
  return page;
}
