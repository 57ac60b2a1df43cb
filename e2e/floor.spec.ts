import { expect, test } from '@playwright/test';
import { expectAccessible, expectScreensInOrder, openDemo } from './shop';

test('blade and force: what to try next, written down by one press, and what a new blade changes', async ({ page }) => {
  await openDemo(page);
  await page.goto('/shop');
  await page.getByRole('region', { name: 'Printers + cutters' }).getByRole('link', { name: 'Low Weir' }).click();
  await page.getByRole('link', { name: 'Blade and force' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Waymarker vinyl cuts clean');
  await expect(page.getByText('Keep 75 gf: it cut clean.')).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('What lies on or under it').fill('with mask');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('with mask: no test cut is written down yet');
  const tell = async (force: string, outcome: RegExp): Promise<void> => {
    await page.getByLabel('Force', { exact: true }).fill(force);
    await page.getByRole('button', { name: outcome }).click();
  };
  await tell('75', /^Hangs on/);
  await expect(page.getByText('Try 95 gf: it hung on, so a little more.')).toBeVisible();
  await expect(page.getByLabel('Force', { exact: true })).toHaveValue('95');
  await tell('115', /liner or carrier is cut into$/);
  await expect(page.getByText('Try 95 gf: between the one')).toBeVisible();
  await page.getByRole('button', { name: /^Lifts clean/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('with mask cuts clean');
  const rows = page.getByRole('region', { name: 'Test cuts' }).getByRole('row');
  await expect(rows.nth(1)).toContainText('95 gf');
});

test('how marks are read, and what was spoiled: by everything that may matter', async ({ page }) => {
  await openDemo(page);
  await page.goto('/history');
  await page.getByRole('link', { name: 'How marks are read' }).click();
  await expect(page.getByRole('columnheader', { name: 'material, finish, mat, light, inset' })).toBeVisible();
  await page.getByLabel('Told apart by').selectOption({ label: 'light' });
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  const sun = page.getByRole('row').filter({ hasText: 'sun or a lamp right on it' });
  await expect(sun).toContainText('1 of 2');
  await page.goto('/jobs');
  await page.getByRole('link', { name: 'Spoiled work and its cost' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('spoiled in a year');
  await expect(page.getByRole('img', { name: /^Cost of spoiled work in 13 months/ })).toBeVisible();
  await page.getByRole('link', { name: 'three months' }).click();
  await expect(page).toHaveURL(/days=92/);
  await expectScreensInOrder(page, ['/history/marks', '/jobs/spoiled', '/shop/archive', '/shop/import']);
});

test('a table of another tool: what is wrong with it is told, then it is kept whole, and taken back', async ({
  page,
}) => {
  await openDemo(page);
  await page.goto('/shop/import');
  const table = page.getByLabel('The table');
  const head = 'date;machine;stock;left (in);right (in);top (in);bottom (in)';
  const line = (left: string): string => `02.03.2026;Otter Pool;Waymarker vinyl;${left};0,118;0,118;0,118`;
  await table.fill(`${head}\n${line('wide')}`);
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'One thing to mend first' })).toContainText(
    'Line 2, left (in)',
  );
  await expect(page.getByRole('button', { name: /^Take / })).toHaveCount(0);
  await expectAccessible(page);
  await expect(table).toHaveValue(new RegExp('wide'));
  await table.fill(`${head}\n${line('0,12')}`);
  await page.getByRole('button', { name: 'Look at it' }).click();
  await page.getByRole('button', { name: 'Take this line in' }).click();
  await expect(page.getByRole('heading', { name: 'One line is kept' })).toBeVisible();
  await page.getByRole('button', { name: 'Take them back' }).click();
  await expect(page.getByText('Taken back: they count no more')).toBeVisible();
  const csv = await page.request.get('/lists/daily-checks?format=csv');
  expect(csv.headers()['content-disposition']).toContain('daily-checks.csv');
  expect(await csv.text()).toContain('2026-03-02T12:00:00Z');
});

test('a file too large is refused as a whole: it is never cut short unseen', async ({ page }) => {
  await openDemo(page);
  await page.goto('/shop/import');
  const line = '02.03.2026;Otter Pool;Waymarker vinyl;3;3;3;3\n';
  const text = `date;machine;stock;left mm;right mm;top mm;bottom mm\n${line.repeat(6000)}`;
  const input = page.getByLabel('or a CSV file');
  // A file chosen before the page listens is not heard of: it is chosen until its text stands there.
  await expect(async () => {
    await input.setInputFiles({ name: 'borders.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    await expect(page.getByLabel('The table')).toHaveValue(/^date;machine/, { timeout: 2000 });
  }).toPass();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'at most 240000 letters' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Take / })).toHaveCount(0);
});
