import { expect, test } from '@playwright/test';
import { expectAccessible, expectScreensInOrder, openDemo } from './shop';

test('the record is narrowed, searched, and given out as a file; every view has its own address', async ({ page }) => {
  await openDemo(page);
  await page.goto('/history');
  await expect(page.getByRole('row').nth(1)).toBeVisible();
  await page.getByLabel('Printer + cutter').selectOption({ label: 'Otter Pool' });
  await page.getByLabel('What', { exact: true }).selectOption({ label: 'confirmed' });
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page).toHaveURL(/kind=confirmed/);
  const rows = page.getByRole('row');
  await expect(rows).toHaveCount(7);
  await expectAccessible(page);
  const csv = await page.request.get((await page.getByRole('link', { name: 'CSV' }).getAttribute('href')) ?? '');
  expect(csv.headers()['content-disposition']).toContain('history.csv');
  expect((await csv.text()).trim().split('\r\n')).toHaveLength(7);
  await page.getByRole('link', { name: 'Show all' }).click();
  await expect(page.getByRole('link', { name: 'Show all' })).toHaveCount(0);
  await expect(page.getByLabel('Printer + cutter')).toHaveValue('');
  await page.getByLabel('With the words').fill('blade');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(rows).toHaveCount(2);
  await expect(rows.nth(1)).toContainText('new blade or holder: 45 degree blade');
  await page.getByLabel('With the words').fill('nothing like this');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Nothing in the record is like that');
});

test('how a setup was found and left: each part, a stretch of time by pointer and by keys, the figures beside it', async ({
  page,
}) => {
  await openDemo(page);
  await page.goto('/history');
  await page.getByRole('navigation', { name: 'Over time' }).getByRole('link', { name: 'Otter Pool' }).click();
  await expect(page.getByRole('img', { name: /^offset across over time, 6 calibrations/ })).toBeVisible();
  await page.getByRole('button', { name: 'scale along' }).click();
  await expect(page.getByRole('img', { name: /^scale along over time, 6 calibrations/ })).toBeVisible();
  await expectAccessible(page);
  // By the pointer: the last quarter of the strip.
  const strip = page.locator('svg .overlay');
  const box = await strip.boundingBox();
  if (!box) throw new Error('the strip is there');
  await page.mouse.move(box.x + 0.75 * box.width, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 1, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await page.getByText(/^The figures: 2 calibrations/).click();
  await expect(page.getByRole('row')).toHaveCount(3);
  // By keys: a date typed.
  await page.getByRole('button', { name: 'All of it' }).click();
  await expect(page.getByText('The figures: 6 calibrations')).toBeVisible();
  await page.getByLabel('From').fill(new Date(Date.now() - 100 * 86_400_000).toISOString().slice(0, 10));
  await expect(page.getByText('The figures: 3 calibrations')).toBeVisible();
});

test('an entry: a note beside it, its certificate, and another held against it', async ({ page }) => {
  await openDemo(page);
  await page.goto('/history?kind=confirmed');
  await page.getByRole('link', { name: /UTC/ }).first().click();
  await page.getByLabel('A note beside it').fill('Felt of the roller was new.');
  await page.getByRole('button', { name: 'Keep the note' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Felt of the roller was new.' })).toBeVisible();
  await expectAccessible(page);
  const link = await page.getByRole('link', { name: 'Certificate (PDF)' }).getAttribute('href');
  const pdf = await page.request.get(link ?? '');
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByRole('row').nth(1)).toContainText('offset across');
  await expectAccessible(page);
});

test('axe finds nothing serious on these screens, light and dark; none scrolls sideways at 390 px', async ({
  page,
}) => {
  await openDemo(page);
  await page.goto('/history');
  const overTime = await page
    .getByRole('navigation', { name: 'Over time' })
    .getByRole('link', { name: 'Otter Pool' })
    .getAttribute('href');
  await expectScreensInOrder(page, ['/history', overTime ?? '']);
});
