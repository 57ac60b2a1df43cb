import http from 'node:http';
import { expect, test } from '@playwright/test';
import { openDemo } from './shop';

/** A plain request with headers a browser would not let a page set. */
function send(
  port: number,
  options: http.RequestOptions,
  body?: Buffer,
): Promise<{ status: number; headers: http.IncomingHttpHeaders }> {
  return new Promise((resolve, reject) => {
    const request = http.request({ host: '127.0.0.1', port, ...options }, (response) => {
      response.resume();
      resolve({ status: response.statusCode ?? 0, headers: response.headers });
    });
    request.on('error', reject);
    request.end(body);
  });
}

const portOf = (baseURL: string | undefined): number => Number(new URL(baseURL ?? '').port);

test('a foreign host name is refused, and so are foreign writes and oversized bodies', async ({ baseURL }) => {
  const port = portOf(baseURL);
  const host = `localhost:${port}`;
  expect((await send(port, { path: '/', headers: { host: 'rebound.example' } })).status).toBe(421);
  expect((await send(port, { path: '/', headers: { host: `localhost.rebound.example:${port}` } })).status).toBe(421);
  const post = (headers: http.OutgoingHttpHeaders) =>
    send(port, { path: '/', method: 'POST', headers: { host, ...headers } });
  expect((await post({ origin: 'http://elsewhere.example' })).status).toBe(403);
  expect((await post({ origin: 'null' })).status).toBe(403);
  expect((await post({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await post({ 'sec-fetch-site': 'same-site' })).status).toBe(403);
  const large = Buffer.alloc(66 * 1024 * 1024);
  const sent = await send(
    port,
    { path: '/', method: 'POST', headers: { host, origin: `http://${host}`, 'content-length': large.length } },
    large,
  );
  expect(sent.status).toBe(413);
});

test('pages carry the usual headers, files go out as attachments', async ({ page, baseURL }) => {
  const response = await page.goto('/');
  const headers = response?.headers() ?? {};
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['x-frame-options']).toBe('DENY');
  expect(headers['referrer-policy']).toBe('same-origin');
  expect(headers['x-powered-by']).toBeUndefined();
  expect(
    (await send(portOf(baseURL), { path: '/calibrations/not-an-id/files/print-pdf', headers: { host: 'localhost' } }))
      .status,
  ).toBe(400);
});

test('a page of another site cannot post here, even from a browser that is signed in', async ({ page, baseURL }) => {
  await page.route('http://elsewhere.example/', (route) =>
    route.fulfill({
      contentType: 'text/html',
      body: `<form method="post" action="${baseURL ?? ''}/"><button>go</button></form>`,
    }),
  );
  await page.goto('http://elsewhere.example/');
  const answer = page.waitForResponse((r) => r.request().method() === 'POST');
  await page.getByRole('button', { name: 'go' }).click();
  expect((await answer).status()).toBe(403);
});

test('a name of markup and SQL stays a name: it is kept and shown letter by letter, and runs nowhere', async ({
  page,
}) => {
  const name = `<img src=x onerror="window.ran=1">'; drop table a--`;
  await openDemo(page);
  await page.goto('/shop/material/new');
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('button', { name: 'Write it down' }).click();
  await page.waitForURL(/shop$/);
  await expect(page.getByRole('link', { name })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('link', { name })).toBeVisible();
  expect(await page.evaluate(() => 'ran' in window)).toBe(false);
});

test('pages of the shop are kept in no cache', async ({ page }) => {
  const response = await page.goto('/shop');
  expect(response?.headers()['cache-control']).toContain('no-store');
});
