/** @jest-environment node */
import { NextRequest } from 'next/server';
import { proxy } from './proxy';

const HOST = 'localhost:3210';

function answer(method: string, headers: Record<string, string>): number {
  return proxy(new NextRequest(`http://${HOST}/`, { method, headers: { host: HOST, ...headers } })).status;
}

describe('host guard', () => {
  afterEach(() => {
    delete process.env.RED_PLUMB_HOST;
  });
  it.each([
    ['localhost:3210', 200],
    ['LOCALHOST', 200],
    ['127.0.0.1:80', 200],
    ['[::1]:3210', 200],
    ['localhost.elsewhere.example', 421],
    ['127.0.0.1.elsewhere.example:3210', 421],
    ['elsewhere.example', 421],
    ['', 421],
  ])('%j: %s', (host, status) => {
    expect(answer('GET', { host })).toBe(status);
  });
  it('one more name may be configured', () => {
    process.env.RED_PLUMB_HOST = 'Workshop.local';
    expect(answer('GET', { host: 'workshop.local:3210' })).toBe(200);
    expect(answer('GET', { host: 'other.local' })).toBe(421);
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
  ])('%s', (_, headers, status) => {
    for (const method of ['POST', 'PUT', 'PATCH', 'DELETE']) expect(answer(method, headers)).toBe(status);
  });
  it('reading is free of that: a link from another site opens the page', () => {
    expect(answer('GET', { 'sec-fetch-site': 'cross-site', origin: 'http://elsewhere.example' })).toBe(200);
  });
});

it('every page carries the headers', () => {
  const { headers } = proxy(new NextRequest(`http://${HOST}/`, { headers: { host: HOST } }));
  expect(headers.get('content-security-policy')).toMatch(
    /default-src 'self'.*object-src 'none'.*frame-ancestors 'none'/,
  );
  for (const name of ['x-content-type-options', 'x-frame-options', 'referrer-policy', 'permissions-policy']) {
    expect(headers.get(name)).not.toBeNull();
  }
});
