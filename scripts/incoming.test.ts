import { pathToFileURL } from 'node:url';

interface Incoming {
  readonly newRequestNumber: () => string;
  readonly proxyList: (text: string) => object;
  readonly isTrusted: (list: object, address: string | undefined) => boolean;
  readonly refusalOf: (request: { method: string; url: string }) => { readonly status: number } | null;
  readonly settleHeaders: (request: object, proxies: object) => string;
}

const load = async (): Promise<Incoming> =>
  (await import(pathToFileURL(`${process.cwd()}/scripts/server/incoming.mjs`).href)) as Incoming;

it.each([
  ['127.0.0.1', '127.0.0.1', true],
  ['127.0.0.1', '::ffff:127.0.0.1', true],
  ['127.0.0.1', '127.0.0.2', false],
  ['10.0.0.0/8, ::1', '10.200.3.4', true],
  ['10.0.0.0/8, ::1', '11.0.0.1', false],
  ['10.0.0.0/8, ::1', '::1', true],
  ['fd00::/8', 'fd12::7', true],
  ['', '127.0.0.1', false],
  ['127.0.0.1', undefined, false],
])('trusting %j, %s: %s', async (list, address, is) => {
  const { isTrusted, proxyList } = await load();
  expect(isTrusted(proxyList(list), address)).toBe(is);
});

const FORWARDED = {
  forwarded: 'for=203.0.113.9;proto=https',
  'x-forwarded-for': '203.0.113.9',
  'x-forwarded-host': 'elsewhere.example',
  'x-forwarded-proto': 'https',
  'x-forwarded-port': '443',
  'x-real-ip': '203.0.113.9',
};

it('forwarded headers of a stranger are dropped, those of a trusted web server kept; the number is always ours', async () => {
  const { settleHeaders, proxyList } = await load();
  const from = (remoteAddress: string) => {
    const headers: Record<string, string> = { ...FORWARDED, host: 'plumb.example', 'x-request-number': 'MINE' };
    const number = settleHeaders({ headers, socket: { remoteAddress } }, proxyList('10.0.0.1'));
    expect(headers['x-request-number']).toBe(number);
    expect(number).not.toBe('MINE');
    return Object.keys(headers).sort();
  };
  expect(from('10.0.0.2')).toEqual(['host', 'x-request-number']);
  expect(from('10.0.0.1')).toEqual([...Object.keys(FORWARDED), 'host', 'x-request-number'].sort());
});

it('request numbers are eight letters that are not taken for each other, and do not come twice', async () => {
  const { newRequestNumber } = await load();
  const numbers = Array.from({ length: 2000 }, newRequestNumber);
  expect(new Set(numbers).size).toBe(2000);
  for (const number of numbers) expect(number).toMatch(/^[2-9A-HJ-NP-Z]{4}-[2-9A-HJ-NP-Z]{4}$/);
});

it.each([
  ['GET', '/', undefined],
  ['PUT', '/jobs/1/art/2?name=%C3%A9.svg', undefined],
  ['TRACE', '/', 405],
  ['DELETE', '/', 405],
  ['OPTIONS', '*', 405],
  ['GET', '/%zz', 400],
  ['GET', '/history?find=a%00b', 400],
  ['GET', 'http://elsewhere.example/', 400],
])('%s %s: %s', async (method, url, status) => {
  expect((await load()).refusalOf({ method, url })?.status).toBe(status);
});
