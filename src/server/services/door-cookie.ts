import 'server-only';
import { createHmac, timingSafeEqual } from 'node:crypto';

export const DOOR_COOKIE = 'door';
/** Everyone signs in again after this long (OWASP ASVS 4.0.3, 3.3.2, level 1: 30 days). */
export const SIGNED_IN_MS = 30 * 24 * 3600 * 1000;

interface Token {
  readonly id: string;
  readonly expiresAt: Date;
}

const mark = (body: string, secret: string): Buffer =>
  createHmac('sha256', Buffer.from(secret, 'base64url')).update(body).digest();

/** `id.expiry in ms.HMAC-SHA256`: nothing in it can be changed without the secret. */
export function writeToken({ id, expiresAt }: Token, secret: string): string {
  const body = `${id}.${expiresAt.getTime()}`;
  return `${body}.${mark(body, secret).toString('base64url')}`;
}

/** What a cookie says, or null when it was not made here, was changed, or has expired. */
export function readToken(cookie: string, secret: string, now: Date): Token | null {
  const match = /^([0-9a-f-]{36})\.(\d{13})\.([\w-]{43})$/.exec(cookie);
  if (!match) return null;
  const [, id = '', expiry = '', given = ''] = match;
  if (!timingSafeEqual(mark(`${id}.${expiry}`, secret), Buffer.from(given, 'base64url'))) return null;
  const expiresAt = new Date(Number(expiry));
  return expiresAt > now ? { id, expiresAt } : null;
}
