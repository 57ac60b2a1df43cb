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
  context,
}) => {
  await openDaily(page, 'Otter Pool');
  const daily = new URL(page.url()).pathname;
  await expectScreensInOrder(page, context, ['/', daily, daily.replace('daily', 'policy')]);
});
