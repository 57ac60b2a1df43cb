import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, expectScreensInOrder, openDemo } from './shop';

const headline = (page: Page) => page.getByRole('heading', { level: 1 });

async function openDaily(page: Page, setup: string): Promise<void> {
  await openDemo(page);
  await page.goto('/');
  const card = page.getByRole('article', { name: setup });
  await card.getByRole('link', { name: 'Measure a piece, 2 minutes' }).click();
  await expect(page).toHaveURL(/\/daily/);
}

test('the bench tells the next job, why, and what a check would save', async ({ page }) => {
  await openDemo(page);
  await page.goto('/');
  const card = page.getByRole('article', { name: 'Low Weir' });
  await expect(card).toContainText(/Next job: within 0\.\d\d mm in 95 of 100/);
  await card.getByText('Why?').click();
  await expect(card).toContainText(
    /5 jobs to come × \(\d+ % out now − \d+ % after a check\) × 20 a spoiled job = [\d.]+; a check takes 5/,
  );
  await expectAccessible(page);
});

test('a daily check in four figures: kept, on the chart, taken back', async ({ page }) => {
  await openDaily(page, 'Low Weir');
  await expect(headline(page)).toContainText('Low Weir');
  const rows = page.getByRole('row');
  const before = await rows.count();
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeDisabled();
  // Four figures and one button.
  await page.getByLabel('left').fill('2.9');
  await page.getByLabel('right').fill('3.1');
  await page.getByLabel('top').fill('3.0');
  await page.getByLabel('bottom').fill('3.0');
  await expect(page.getByText('The cut lies 0.10 mm to the right and 0.00 mm high at this piece.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await expect(rows).toHaveCount(before + 1);
  await expect(rows.nth(1)).toContainText('0.10 mm');
  await expect(page.getByLabel('left')).toHaveValue('');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('Taken back: it counts no more.')).toBeVisible();
  await expect(rows).toHaveCount(before);
});

test('a border that is no length is named and nothing typed is lost', async ({ page }) => {
  await openDaily(page, 'Low Weir');
  await page.getByLabel('left').fill('three');
  await page.getByLabel('right').fill('3.1');
  await expect(page.getByText(/is not a length/)).toBeVisible();
  await expect(page.getByLabel('right')).toHaveValue('3.1');
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeDisabled();
});

test('one photo of a piece: taken, looked at, kept, taken back; what cannot be measured says why', async ({ page }) => {
  await openDaily(page, 'Low Weir');
  await page.getByRole('link', { name: 'one photo' }).click();
  const take = page.getByRole('button', { name: 'Photograph the label' });
  await take.click();
  await expect(page.getByText(/waits: type the cut width and height of the piece/)).toBeVisible();
  await page.getByLabel('Cut width').fill('40');
  await page.getByLabel('Cut height').fill('60');
  await expect(
    page.getByText('It lies on its side: turn it as it was printed, or swap width and height.'),
  ).toBeVisible();
  await page.getByLabel('Cut width').fill('60');
  await page.getByLabel('Cut height').fill('40');
  await expect(
    page.getByText(/The cut lies 0\.\d\d mm to the (left|right) and 0\.\d\d mm (high|low) at this piece/),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /the cut dashed/ })).toBeVisible();
  await expectAccessible(page);
  const rows = page.getByRole('row');
  const before = await rows.count();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await expect(rows).toHaveCount(before + 1);
  await expect(rows.nth(1)).toContainText('one photo');
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(rows).toHaveCount(before);
  // The same piece tomorrow: its size is still there.
  await page.reload();
  await expect(page.getByLabel('Cut width')).toHaveValue('60.00');
  const text = { name: 'note.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') };
  await page.getByLabel('Drop the photo here, or take it').setInputFiles(text);
  await expect(page.getByText(/is no PNG, JPEG or TIFF/)).toBeVisible();
});

test('two small discs beside the work: their files, a scan of both, kept, taken back', async ({ page }) => {
  await openDaily(page, 'Low Weir');
  await page.getByRole('link', { name: 'two small discs' }).click();
  const file = await page.request.get(
    (await page.getByRole('link', { name: 'SVG' }).last().getAttribute('href')) ?? '',
  );
  expect(file.headers()['content-disposition']).toBe('attachment; filename="small-disc-2.svg"');
  await page.getByRole('button', { name: 'Scan the sheet' }).click();
  await expect(page.getByText(/2 of 2 discs measured/)).toBeVisible();
  await expect(page.getByRole('list', { name: 'The discs' }).getByRole('listitem')).toHaveText([
    /^Disc 1: /,
    /^Disc 2: /,
  ]);
  await expect(page.getByText(/The cut lies .* half way between the two/)).toBeVisible();
  await expectAccessible(page);
  const rows = page.getByRole('row');
  const before = await rows.count();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await expect(rows.nth(1)).toContainText('two small discs');
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(rows).toHaveCount(before);
});

test('the two discs are added to a job that is laid out here, and stand on its sheet', async ({ page }) => {
  await openDemo(page);
  await page.goto('/jobs');
  await page.getByLabel('What it is called').fill('Labels with discs');
  await page.getByLabel('Printer + cutter').selectOption({ label: 'Low Weir' });
  await page.getByRole('button', { name: 'Lay it out' }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}/);
  await page.getByRole('button', { name: 'Add what is made' }).click();
  const art = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><circle cx="30" cy="30" r="25" fill="#0b6b62"/><circle cx="30" cy="30" r="27" fill="none" stroke="#ff0000" stroke-width="0.1"/></svg>`;
  await page
    .getByLabel(/Its art/)
    .setInputFiles({ name: 'disc.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(art) });
  await page.getByLabel(/#ff0000 \d/).check();
  await page.getByRole('button', { name: 'Add two small discs for the daily check' }).click();
  for (const no of [1, 2]) await expect(page.getByRole('group', { name: `Small disc ${no}` })).toBeVisible();
  await expect(page.getByText('Nothing to put right was found.')).toBeVisible();
  await page.getByRole('button', { name: 'Lock for printing' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Print Labels with discs');
});

test('a walk that left what is usual leads to a check, not to an adjustment', async ({ page }) => {
  await openDaily(page, 'Otter Pool');
  await expect(headline(page)).toHaveText('Otter Pool: the daily checks left what is usual');
  await expect(page.getByRole('img', { name: /^Along: \d+ points, [1-9]\d* signal/ })).toBeVisible();
  await expect(page.getByText('Limits are provisional until fifty checks')).toBeVisible();
  await page.getByRole('link', { name: 'Quick check, 15 minutes' }).click();
  await expect(headline(page)).toHaveText('Otter Pool: choose a check and make its sheet');
});

test('when to check again: each way, its figures, the chart; another screen’s change is not overwritten', async ({
  page,
}) => {
  await openDaily(page, 'Low Weir');
  await page.getByRole('link', { name: 'Another chart' }).click();
  await expect(headline(page)).toHaveText('Low Weir: when is it checked again?');
  await page.getByLabel('every so many days').check();
  await page.getByLabel('Every', { exact: true }).fill('3');
  await page.getByLabel(/^Cumulative sums/).check();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/Due: \d+ days since, every 3 is asked/)).toBeVisible();
  await page.goto('/');
  const card = page.getByRole('article', { name: 'Low Weir' });
  await expect(card).toContainText('check first');
  await card.getByRole('link', { name: 'Measure a piece, 2 minutes' }).click();
  await expect(page.getByText(/Cumulative sums \(CUSUM\)/)).toBeVisible();
  await page.getByRole('link', { name: 'Another chart' }).click();
  await page.getByLabel(/^by evidence/).check();
  await page.getByLabel(/^Moving average/).check();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/Not due: a check costs more/)).toBeVisible();
});

test('axe finds nothing serious on these screens, light and dark; none scrolls sideways at 390 px', async ({
  page,
}) => {
  await openDaily(page, 'Otter Pool');
  const daily = new URL(page.url()).pathname;
  const ways = ['photo', 'discs'].map((by) => `${daily}?by=${by}`);
  await expectScreensInOrder(page, ['/', daily, ...ways, daily.replace('daily', 'policy')]);
});
