/** @jest-environment node */
import { NextRequest } from 'next/server';
import { proxy } from './proxy';
import { log } from './server/log';

const HOST = 'localhost:3210';

async function answer(method: string, headers: Record<string, string>): Promise<number> {
  return (await proxy(new NextRequest(`http://${HOST}/`, { method, headers: { host: HOST, ...headers } }))).status;
}

beforeEach(() => {
  process.env.RED_PLUMB_BOUND = 'loopback';
});
afterEach(() => {
  delete process.env.RED_PLUMB_BOUND;
  delete process.env.RED_PLUMB_URL;
  delete process.env.DATABASE_URL;
});

describe('host guard', () => {
  it.each([
    ['localhost:3210', 200],
    ['LOCALHOST', 200],
    ['127.0.0.1:80', 200],
    ['[::1]:3210', 200],
    ['localhost.elsewhere.example', 421],
    ['127.0.0.1.elsewhere.example:3210', 421],
    ['elsewhere.example', 421],
    ['192.168.1.20:3210', 421],
    ['', 421],
  ])('%j: %s', async (host, status) => {
    expect(await answer('GET', { host })).toBe(status);
  });
  it('the configured name belongs to the door, not to the server on loopback, which asks nobody to sign in', async () => {
    process.env.RED_PLUMB_URL = 'http://Workshop.local:3211';
    expect(await answer('GET', { host: 'workshop.local:3210' })).toBe(421);
  });
});

describe('beyond loopback, without a cookie', () => {
  beforeEach(() => {
    process.env.RED_PLUMB_BOUND = 'beyond';
    process.env.RED_PLUMB_URL = 'http://Workshop.local:3211';
    process.env.DATABASE_URL = 'postgres://nobody@127.0.0.1:1/none';
  });
  it.each([
    ['192.168.1.20:3211', 401],
    ['[fe80::1]:3211', 401],
    ['workshop.local:3211', 401],
    ['localhost:3211', 401],
    ['other.local', 421],
    ['192.168.1.20.elsewhere.example', 421],
  ])('%j: %s', async (host, status) => {
    expect(await answer('GET', { host })).toBe(status);
  });
  it('a server started by hand, that was not told where it is bound, asks too', async () => {
    delete process.env.RED_PLUMB_BOUND;
    expect(await answer('GET', { host: HOST })).toBe(401);
  });
  it('one who opens a page is led to sign in and back; every other kind of request is refused', async () => {
    const page = new NextRequest('http://localhost:3211/history?find=a', {
      headers: { host: 'localhost:3211', accept: 'text/html,*/*' },
    });
    const { status, headers } = await proxy(page);
    expect(status).toBe(303);
    expect(headers.get('location')).toBe('http://localhost:3211/sign-in?to=%2Fhistory%3Ffind%3Da');
    for (const method of ['POST', 'PUT', 'DELETE', 'OPTIONS', 'HEAD', 'PATCH'])
      expect(await answer(method, { accept: 'text/html', host: HOST })).toBe(401);
  });
  it('when the records cannot be reached a cookie lets nobody in', async () => {
    const logged = jest.spyOn(log, 'error').mockImplementation(() => undefined);
    expect(await answer('GET', { cookie: 'door=x' })).toBe(503);
    expect(logged).toHaveBeenCalled();
    logged.mockRestore();
  });
});

describe('writes', () => {
  it.each([
    ['from our own page', { origin: `http://${HOST}`, 'sec-fetch-site': 'same-origin' }, 200],
    ['typed by hand, no origin', { 'sec-fetch-site': 'none' }, 200],
    ['from another site', { origin: 'http://elsewhere.example' }, 403],
    ['from another port', { origin: 'http://localhost:9999' }, 403],
    ['from a sandboxed frame', { origin: 'null' }, 403],
    ['cross-site without an origin', { 'sec-fetch-site': 'cross-site' }, 403],
    ['same site, other origin', { 'sec-fetch-site': 'same-site', origin: `http://${HOST}` }, 403],
    ['too large', { 'content-length': String(65 * 1024 * 1024) }, 413],
  ])('%s', async (_, headers, status) => {
    for (const method of ['POST', 'PUT', 'PATCH', 'DELETE']) expect(await answer(method, headers)).toBe(status);
  });
  it('reading is free of that: a link from another site opens the page', async () => {
    expect(await answer('GET', { 'sec-fetch-site': 'cross-site', origin: 'http://elsewhere.example' })).toBe(200);
  });
});

describe('headers', () => {
  const get = async () => (await proxy(new NextRequest(`http://${HOST}/`, { headers: { host: HOST } }))).headers;
  it('every page carries them', async () => {
    const headers = await get();
    for (const name of ['x-content-type-options', 'x-frame-options', 'referrer-policy', 'permissions-policy'])
      expect(headers.get(name)).not.toBeNull();
    expect(headers.get('content-security-policy')).toMatch(
      /default-src 'self'.*object-src 'none'.*frame-ancestors 'none'/,
    );
  });
  it('scripts need a number that is new with every answer', async () => {
    const scripts = async () =>
      /script-src ([^;]+)/.exec((await get()).get('content-security-policy') ?? '')?.[1] ?? '';
    const [a, b] = [await scripts(), await scripts()];
    expect(a).toMatch(/'nonce-[\w+/=]{22,}'/);
    expect(a).not.toMatch(/unsafe-inline/);
    expect(a).not.toBe(b);
  });
});

it('files and data go out sandboxed, pages with a policy of their own', async () => {
  const policyOf = async (path: string): Promise<string> => {
    const asked = new NextRequest(`http://${HOST}${path}`, { headers: { host: HOST } });
    return (await proxy(asked)).headers.get('content-security-policy') ?? '';
  };
  for (const path of ['/setups/1/card', '/jobs/1/art/2', '/api/v1/fit', '/calibrations/1/scans/2/originals/0'])
    expect(await policyOf(path)).toBe("sandbox; default-src 'none'");
  expect(await policyOf('/setups/1')).toMatch(/^default-src 'self'; script-src 'self' 'nonce-/);
});
