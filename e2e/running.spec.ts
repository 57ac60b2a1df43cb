import { connect } from 'node:net';
import { expect, test } from '@playwright/test';
import { Client } from 'pg';
import { openDemo } from './shop';

const base = (): URL => new URL(test.info().project.use.baseURL ?? '');

/** The head of what a server answers to plain bytes; what comes after the socket has closed is all there was. */
function askPlain(words: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const socket = connect(Number(base().port), '127.0.0.1', () => socket.write(words));
    let answer = '';
    socket.setTimeout(10_000, () => socket.destroy(new Error('the socket stayed open')));
    socket.on('data', (bytes) => (answer += bytes.toString()));
    socket.on('error', reject);
    socket.on('close', () => {
      resolve(answer);
    });
  });
}

test('says that it lives and that it is ready, to anyone', async ({ request }) => {
  const health = await request.get('/healthz');
  expect([health.status(), (await health.text()).trim()]).toEqual([200, 'ok']);
  const ready = await request.get('/readyz');
  expect(ready.status()).toBe(200);
  expect(await ready.json()).toEqual({ database: 'ready', disk: 'enough' });
  const door = await request.get(`http://127.0.0.1:${process.env.E2E_DOOR_PORT ?? ''}/readyz`);
  expect(door.status()).toBe(200);
});

test('every answer has a number of its own, whatever the client called it', async ({ request }) => {
  const numbers = [];
  for (let i = 0; i < 2; i++)
    numbers.push(
      (await request.get('/shop', { headers: { 'x-request-number': 'AAAA-AAAA' } })).headers()['x-request-number'],
    );
  expect(numbers[0]).toMatch(/^[2-9A-HJ-NP-Z]{4}-[2-9A-HJ-NP-Z]{4}$/);
  expect(numbers[0]).not.toBe('AAAA-AAAA');
  expect(numbers[1]).not.toBe(numbers[0]);
});

test('an Upgrade is answered and its socket given back; so are CONNECT and TRACE', async ({ request }) => {
  // The framework listens for upgrades of its own from its first request on.
  await request.get('/');
  const host = `Host: localhost:${base().port}\r\n`;
  const upgrade =
    'Connection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n';
  for (const path of ['/', '/_next/webpack-hmr'])
    expect(await askPlain(`GET ${path} HTTP/1.1\r\n${host}${upgrade}`)).toMatch(/^HTTP\/1\.1 400 /);
  expect(await askPlain(`CONNECT elsewhere.example:443 HTTP/1.1\r\n${host}\r\n`)).toMatch(/^HTTP\/1\.1 400 /);
  expect(await askPlain(`TRACE / HTTP/1.1\r\n${host}Connection: close\r\n\r\n`)).toMatch(/^HTTP\/1\.1 405 /);
});

test('an address that cannot be read is refused, not a fault', async () => {
  const ask = (path: string) =>
    askPlain(`GET ${path} HTTP/1.1\r\nHost: localhost:${base().port}\r\nConnection: close\r\n\r\n`);
  for (const path of ['/%zz', '/history?find=%00', '/setups/%E0%A4%A', '/lists/%00'])
    expect([path, (await ask(path)).split('\r\n')[0]]).toEqual([path, 'HTTP/1.1 400 Bad Request']);
});

test('what a client says of itself in forwarded headers is dropped', async ({ request }) => {
  const answer = await request.get('/shop/phones', {
    headers: {
      'x-forwarded-host': 'elsewhere.example',
      'x-forwarded-proto': 'https',
      'x-forwarded-for': '203.0.113.9',
    },
    maxRedirects: 0,
  });
  expect(answer.status()).toBe(200);
  expect(await answer.text()).not.toContain('elsewhere.example');
});

test('files go out sandboxed and in no cache', async ({ page, request }) => {
  await openDemo(page);
  const cookies = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
  const answer = await request.get('/lists/events?format=csv', { headers: { cookie: cookies } });
  expect(answer.headers()['content-security-policy']).toBe("sandbox; default-src 'none'");
  expect(answer.headers()['cache-control']).toBe('no-store');
});

test('a page that fails says so, with the number of its request, and comes back with a press', async ({ page }) => {
  await openDemo(page);
  const client = new Client({ connectionString: process.env.DATABASE_URL ?? '' });
  await client.connect();
  try {
    await client.query('alter table job rename to job_away');
    await page.goto('/jobs');
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('This page could not be shown');
    await expect(page.getByText(/^Number in the log: [2-9A-Z]{4}-[2-9A-Z]{4}$/)).toBeVisible();
  } finally {
    await client.query('alter table if exists job_away rename to job');
    await client.end();
  }
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('This page could not be shown', {
    timeout: 15_000,
  });
});

test('a new browser is asked for its shop, and starts there the next time; nobody is put in a shop of others', async ({
  browser,
  page,
}) => {
  await openDemo(page);
  // A shop beside the demo, so that there is a choice.
  await page.goto('/shop/start');
  await page.getByLabel('Name of the shop').fill('Ferry quay prints');
  await page.getByLabel('Your name').fill('Inga');
  await page.getByRole('button', { name: 'Make the shop' }).click();
  await page.waitForURL(/shop\/new/);
  const context = await browser.newContext({ baseURL: base().origin });
  const fresh = await context.newPage();
  await fresh.goto('/history');
  await fresh.waitForURL(/choose-shop/);
  await expect(fresh.getByRole('heading', { level: 1 })).toHaveText('Which shop are you in?');
  await fresh.getByRole('button', { name: 'Ferry quay prints' }).click();
  await expect(fresh.getByLabel('Shop', { exact: true })).toHaveValue(/[0-9a-f-]{36}/);
  await fresh.close();
  const again = await context.newPage();
  await again.goto('/shop');
  await expect(again.getByRole('heading', { level: 1 })).toHaveText('Ferry quay prints');
  await again.getByRole('button', { name: 'Change name or currency' }).click();
  await again.getByLabel('Costs are in').selectOption('JPY');
  await again.getByRole('button', { name: 'Save' }).click();
  await expect(again.getByRole('button', { name: 'Change name or currency' })).toBeVisible();
  await context.close();
});
