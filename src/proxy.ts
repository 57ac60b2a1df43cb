import { NextResponse, type NextRequest } from 'next/server';

const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]']);
/** Largest body any route takes: 64 MiB of upload and its wrapping. */
const LARGEST_BODY_BYTES = 64 * 1024 * 1024 + 64 * 1024;

function nameOf(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

function isOwnHost(host: string | null): boolean {
  if (host === null) return false;
  return LOOPBACK.has(nameOf(host)) || nameOf(host) === process.env.RED_PLUMB_HOST?.toLowerCase();
}

function refuse(status: number, message: string): NextResponse {
  return new NextResponse(message, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } });
}

/** A write must come from our own pages: not from another site's form, script or frame. */
function isForeign(request: NextRequest, host: string): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return true;
  const origin = request.headers.get('origin');
  if (origin === null) return false;
  return !URL.canParse(origin) || new URL(origin).host.toLowerCase() !== host.toLowerCase();
}

const HEADERS: readonly (readonly [string, string])[] = [
  ['x-content-type-options', 'nosniff'],
  ['x-frame-options', 'DENY'],
  ['referrer-policy', 'no-referrer'],
  ['cross-origin-opener-policy', 'same-origin'],
  ['cross-origin-resource-policy', 'same-origin'],
  ['permissions-policy', 'camera=(), microphone=(), geolocation=()'],
  [
    'content-security-policy',
    "default-src 'self'; script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; connect-src 'self'; worker-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
  ],
];

/**
 * Guards a loopback server from other sites' pages: refuses foreign host names (DNS rebinding) with 421, foreign writes
 * with 403 and oversized bodies with 413, and sets the usual headers.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get('host');
  if (host === null || !isOwnHost(host)) return refuse(421, 'This server does not answer under that name.');
  const isRead = request.method === 'GET' || request.method === 'HEAD';
  if (!isRead && isForeign(request, host))
    return refuse(403, 'Only pages of this application may change anything here.');
  if (Number(request.headers.get('content-length') ?? 0) > LARGEST_BODY_BYTES)
    return refuse(413, 'That is more than 64 MiB. Send a smaller file.');
  const response = NextResponse.next();
  for (const [name, value] of HEADERS) response.headers.set(name, value);
  return response;
}
