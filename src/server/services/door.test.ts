/** @jest-environment node */
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { makePassphrase, PASSPHRASE_WORDS } from '@/core/shop/passphrase-words';
import { setClock } from '../clock';
import { closeDoor, letGo, mayPass, openDoor, readDoor, signIn, signOut } from './door';
import { readToken, writeToken } from './door-cookie';
import { checkPassphrase, hashPassphrase, isPassphrase, suggestPassphrase } from './passphrase';

jest.setTimeout(120_000);

const RIGHT = 'heron sluice osier weir mill';
const MINUTE_MS = 60_000;
let db: TestDatabase;
let nowMs = Date.parse('2026-03-02T08:00:00Z');
const later = (ms: number) => (nowMs += ms);

beforeAll(async () => {
  db = await testDatabase();
  setClock(() => new Date(nowMs));
});
afterAll(async () => {
  setClock(undefined);
  await db.close();
});

async function comeIn(): Promise<string> {
  const done = await signIn(db.database, RIGHT);
  if (!done.ok) throw new Error(done.error.kind);
  return done.value.cookie;
}

describe('passphrases', () => {
  it.each([
    ['elevenchars', /11 characters. Use at least 12/],
    ['       short       ', /5 characters/],
    ['x'.repeat(129), /at most 128/],
    ['password1234', /first a stranger would try/],
    ['aaaaaaaaaaaaaaaa', /first a stranger would try/],
    ['qwertyuiop12', /first a stranger would try/],
    ['123456789012', /first a stranger would try/],
    ['red plumb shop', /first a stranger would try/],
  ])('%j is refused in words', (text, words) => {
    const checked = checkPassphrase(text);
    expect(checked.ok ? '' : checked.error.message).toMatch(words);
  });
  it.each([RIGHT, 'Fünf große Ölmühlen am Bach', '天気がいいから散歩しましょう今日は', 'x7#kQ~2!vB9^mZ'])(
    '%j is taken',
    (text) => {
      expect(checkPassphrase(text).ok).toBe(true);
    },
  );
  it('those made up here pass their own check, and every word can come up', () => {
    for (let i = 0; i < 50; i++) expect(checkPassphrase(suggestPassphrase()).ok).toBe(true);
    expect(new Set(PASSPHRASE_WORDS).size).toBe(128);
    const all = Array.from({ length: 256 }, (_, byte) => makePassphrase(new Uint8Array(5).fill(byte)).split(' ')[0]);
    expect(new Set(all)).toEqual(new Set(PASSPHRASE_WORDS));
  });
  it('are kept as a salted scrypt hash: the same twice gives two hashes, blanks more or less do not matter', async () => {
    const [a, b] = [await hashPassphrase(RIGHT), await hashPassphrase(RIGHT)];
    expect(a).not.toBe(b);
    expect(a).not.toContain('heron');
    expect(await isPassphrase(`  ${RIGHT.replace(' ', '   ')} `, a)).toBe(true);
    expect(await isPassphrase(RIGHT.toUpperCase(), a)).toBe(false);
    expect(await isPassphrase('', a)).toBe(false);
    expect(await isPassphrase('x'.repeat(1e6), a)).toBe(false);
  });
});

describe('cookies', () => {
  const secret = Buffer.alloc(32, 7).toString('base64url');
  const token = { id: '0b9d1c2e-0000-4000-8000-000000000001', expiresAt: new Date('2026-04-01T00:00:00Z') };
  const now = new Date('2026-03-02T00:00:00Z');
  it('say what was written, until they expire', () => {
    const cookie = writeToken(token, secret);
    expect(readToken(cookie, secret, now)).toEqual(token);
    expect(readToken(cookie, secret, token.expiresAt)).toBeNull();
  });
  it('are worth nothing with any one character changed, or under another secret', () => {
    const cookie = writeToken(token, secret);
    for (let i = 0; i < cookie.length - 1; i++) {
      const other = cookie[i] === '1' ? '2' : '1';
      expect(readToken(cookie.slice(0, i) + other + cookie.slice(i + 1), secret, now)).toBeNull();
    }
    expect(readToken(cookie, Buffer.alloc(32, 8).toString('base64url'), now)).toBeNull();
    for (const junk of ['', '.', 'a.b.c', `${cookie}x`, cookie.slice(1)])
      expect(readToken(junk, secret, now)).toBeNull();
  });
});

describe('the door', () => {
  it('is shut until it is opened: the right words do not help', async () => {
    expect(await readDoor(db.database)).toEqual({ isOpen: false, devices: [] });
    expect(await signIn(db.database, RIGHT)).toEqual({ ok: false, error: { kind: 'closed' } });
    expect((await openDoor(db.database, 'password1234')).ok).toBe(false);
    expect((await readDoor(db.database)).isOpen).toBe(false);
    expect((await openDoor(db.database, RIGHT)).ok).toBe(true);
  });

  it('lets in who knows the passphrase, each with a cookie of its own, for thirty days', async () => {
    const [a, b] = [await comeIn(), await comeIn()];
    expect(a).not.toBe(b);
    expect(await mayPass(db.database, a)).toBe(true);
    expect(await mayPass(db.database, undefined)).toBe(false);
    expect((await readDoor(db.database)).devices).toHaveLength(2);
    later(29 * 24 * 60 * MINUTE_MS);
    expect(await mayPass(db.database, a)).toBe(true);
    const seen = (await readDoor(db.database)).devices.map((d) => d.lastSeenAt.getTime() === nowMs);
    expect(seen.sort()).toEqual([false, true]);
    later(2 * 24 * 60 * MINUTE_MS);
    expect(await mayPass(db.database, a)).toBe(false);
  });

  it('a device that signed out or was let go is out, the others stay', async () => {
    const [a, b, c] = [await comeIn(), await comeIn(), await comeIn()];
    await signOut(db.database, a);
    const device = (await readDoor(db.database)).devices.find((d) => b.startsWith(d.id));
    await letGo(db.database, device?.id ?? '');
    expect(await Promise.all([a, b, c].map((x) => mayPass(db.database, x)))).toEqual([false, false, true]);
    await signOut(db.database, `${c.slice(0, -3)}abc`);
    expect(await mayPass(db.database, c)).toBe(true);
  });

  it('ten wrong tries, also at the same moment, are all that a quarter of an hour allows; those inside notice nothing', async () => {
    const inside = await comeIn();
    const tries = await Promise.all(Array.from({ length: 14 }, () => signIn(db.database, 'not the right words')));
    const kinds = tries.map((t) => (t.ok ? 'in' : t.error.kind));
    expect(kinds.filter((k) => k === 'wrong')).toHaveLength(10);
    expect(kinds.filter((k) => k === 'wait')).toHaveLength(4);
    const refused = await signIn(db.database, RIGHT);
    expect(refused).toEqual({ ok: false, error: { kind: 'wait', untilAt: new Date(nowMs + 15 * MINUTE_MS) } });
    expect(await mayPass(db.database, inside)).toBe(true);
    later(15 * MINUTE_MS + 1000);
    expect((await signIn(db.database, RIGHT)).ok).toBe(true);
  });

  it('a new passphrase or a shut door puts everyone out, and an old cookie stays worthless', async () => {
    const a = await comeIn();
    await openDoor(db.database, 'otter quarry ferry rope lantern');
    expect(await mayPass(db.database, a)).toBe(false);
    expect(await signIn(db.database, RIGHT)).toMatchObject({ ok: false, error: { kind: 'wrong' } });
    await openDoor(db.database, RIGHT);
    const b = await comeIn();
    await closeDoor(db.database);
    expect(await mayPass(db.database, b)).toBe(false);
    expect(await signIn(db.database, RIGHT)).toMatchObject({ ok: false, error: { kind: 'closed' } });
    await openDoor(db.database, RIGHT);
    expect(await mayPass(db.database, b)).toBe(false);
  });
});
