import { randomBytes } from 'node:crypto';
import { hostname } from 'node:os';
import { NextResponse, type NextRequest } from 'next/server';
import { isBeyondLoopback, ownName } from '@/env/environment';
import { needsFirstPage, WELCOME_PATH } from '@/server/services/first-page';
import { isFileRoute } from '@/server/services/file-routes';
import { mayComeIn, SIGN_IN_PATH } from '@/server/services/door-guard';

const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]']);
/** Largest body any route takes: 64 MiB of upload and its wrapping. */
const LARGEST_BODY_BYTES = 64 * 1024 * 1024 + 64 * 1024;
const ADDRESS = /^(\d{1,3}(\.\d{1,3}){3}|\[[\da-f:.]+\])$/;

function nameOf(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

/**
 * Names under which this process answers. Loopback: its own names only. Beyond: plain addresses too, which no foreign name
 * server can point here, this machine's name and the configured one.
 */
function isOwnHost(host: string | null): host is string {
  if (host === null) return false;
  const name = nameOf(host);
  if (LOOPBACK.has(name)) return true;
  if (!isBeyondLoopback()) return false;
  const own = hostname().toLowerCase();
  return ADDRESS.test(name) || name === own || name === `${own}.local` || name === ownName();
}

function refuse(status: number, message: string): NextResponse {
  return withHeaders(
    new NextResponse(message, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } }),
    "default-src 'none'",
  );
}

/** A write must come from our own pages: not from another site's form, script or frame. */
function isForeign(request: NextRequest, host: string): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return true;
  const origin = request.headers.get('origin');
  if (origin === null) return false;
  return !URL.canParse(origin) || new URL(origin).host.toLowerCase() !== host.toLowerCase();
}

/** Referrers stay inside: with none at all a browser posts our own forms with the origin "null". */
const HEADERS: readonly (readonly [string, string])[] = [
  ['x-content-type-options', 'nosniff'],
  ['x-frame-options', 'DENY'],
  ['referrer-policy', 'same-origin'],
  ['cross-origin-opener-policy', 'same-origin'],
  ['cross-origin-resource-policy', 'same-origin'],
  ['permissions-policy', 'camera=(), microphone=(), geolocation=()'],
];

/** Only scripts that carry this answer's own number run: a script that got into a page by a name or a note does not. */
const policy = (nonce: string): string =>
  `default-src 'self'; script-src 'self' 'nonce-${nonce}' 'strict-dynamic'; style-src 'self' 'unsafe-inline'; ` +
  "img-src 'self' data: blob:; font-src 'self' data:; connect-src 'self'; worker-src 'self'; object-src 'none'; " +
  "base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

function withHeaders(response: NextResponse, contentSecurityPolicy?: string): NextResponse {
  for (const [name, value] of HEADERS) response.headers.set(name, value);
  if (contentSecurityPolicy) response.headers.set('content-security-policy', contentSecurityPolicy);
  return response;
}

function isTooLarge(request: NextRequest): boolean {
  return Number(request.headers.get('content-length') ?? 0) > LARGEST_BODY_BYTES;
}

const opensPage = (request: NextRequest): boolean =>
  request.method === 'GET' && (request.headers.get('accept') ?? '').includes('text/html');

function toPage(request: NextRequest, host: string, page: string, status: 303 | 307): NextResponse {
  return withHeaders(
    NextResponse.redirect(`${request.nextUrl.protocol}//${host}${page}`, { status }),
    "default-src 'none'",
  );
}

/** To the sign-in page for one who opens a page; a plain refusal for everything else, files and scripts too. */
function askToSignIn(request: NextRequest, host: string): NextResponse {
  if (!opensPage(request)) return refuse(401, 'Sign in first.');
  const { pathname, search } = request.nextUrl;
  return toPage(request, host, `${SIGN_IN_PATH}?to=${encodeURIComponent(`${pathname}${search}`)}`, 303);
}

/**
 * Guards the server: refuses foreign host names (DNS rebinding) with 421, foreign writes with 403 and oversized bodies with
 * 413; beyond loopback answers nothing but the sign-in page to those who have not signed in; sets the usual headers.
 */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  const host = request.headers.get('host');
  if (!isOwnHost(host)) return refuse(421, 'This server does not answer under that name.');
  const isRead = request.method === 'GET' || request.method === 'HEAD';
  if (!isRead && isForeign(request, host))
    return refuse(403, 'Only pages of this application may change anything here.');
  if (isTooLarge(request)) return refuse(413, 'That is more than 64 MiB. Send a smaller file.');
  const comingIn = await mayComeIn(request);
  if (comingIn === 'cannot tell') return refuse(503, 'The records cannot be reached just now. Try again in a moment.');
  if (comingIn === 'no') return askToSignIn(request, host);
  // The sign-in page stands alone and brings a policy of its own that is stricter still.
  if (request.nextUrl.pathname === SIGN_IN_PATH) return withHeaders(NextResponse.next());
  // The answer's own policy would be replaced by this one: files get theirs here.
  if (isFileRoute(request.nextUrl.pathname)) return withHeaders(NextResponse.next(), "sandbox; default-src 'none'");
  if (opensPage(request) && (await needsFirstPage(request.nextUrl.pathname)))
    return toPage(request, host, WELCOME_PATH, 307);
  const nonce = randomBytes(16).toString('base64');
  const headers = new Headers(request.headers);
  headers.set('content-security-policy', policy(nonce));
  return withHeaders(NextResponse.next({ request: { headers } }), policy(nonce));
}
