import { expect, test } from '@playwright/test';
import { cutDone, expectAccessible } from './shop';
import { goOn, newShop } from './new-shop';

test('a wizard whose lines bear letters: described once, its line is asked for by that letter, not what it shows', async ({
  page,
  context,
}) => {
  await context.clearCookies();
  await newShop(page, async () => {
    await page.getByText('Sheets, offset on the cutter').click();
    await goOn(page);
    await page.getByLabel('On which sheet?').selectOption('A4');
    await goOn(page);
    await page.getByText('A wizard with lines to pick').click();
  });
  const setup = page.url();
  await expect(page.getByText(/A wizard hides its value: it takes this test twice/)).toBeVisible();
  await page.getByRole('link', { name: 'Measure by rule' }).click();
  await page.getByRole('link', { name: /own test/ }).click();
  for (const name of ['Sideways', 'Along the feed']) {
    const row = page.getByRole('region', { name });
    await row.getByLabel('Beside its lines stand').selectOption('letters');
    await row.getByLabel('From line to line').fill('0.1');
  }
  await page.getByLabel('on a check sheet that is loaded for it').check();
  await page.getByRole('button', { name: /^Keep this for / }).click();
  await expect(page.getByText(/^Kept with /)).toBeVisible();
  await page.goto(setup);
  await page.getByRole('button', { name: /Find out which way/ }).click();
  await page.waitForURL(/print/);
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Leave the sheet loaded');
  const rows = page.locator('ol.changes > li');
  await expect(rows).toHaveCount(2);
  await expect(page.getByLabel(/shows now/)).toHaveCount(0);
  await expect(rows.first().getByText(/Load a check sheet for it/)).toBeVisible();
  await expectAccessible(page);
  const letters: string[] = [];
  for (let i = 0; i < 2; i++) {
    const words = (await rows.nth(i).locator('.set-words').textContent()) ?? '';
    const letter = /pick line ([A-O])$/.exec(words.trim())?.[1] ?? '';
    letters.push(letter);
    const field = rows.nth(i).getByLabel(/^Line picked in LINES/);
    await field.fill('Q');
    await expect(rows.nth(i).getByText(/"Q" is no line of LINES/)).toBeVisible();
    await field.fill(letter.toLowerCase());
  }
  // One line on from the middle of fifteen.
  expect(letters).toEqual(['I', 'I']);
  await page.getByRole('button', { name: 'Set, and set 2 is cut' }).click();
  await page.waitForURL(/read/);
});
