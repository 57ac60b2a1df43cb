import { expect, test } from '@playwright/test';
import { cutDone, startCheck } from './shop';

test.beforeEach(async ({ page }) => {
  await startCheck(page, 'Osier');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await expect(page.getByLabel('The cut sheet under the loupe')).toBeVisible();
});

test.afterEach(async ({ page }) => {
  await page.getByRole('button', { name: 'Cancel check' }).click();
  await expect(page.getByRole('heading', { name: /was cancelled/ })).toBeVisible();
});

test('arrow keys move the cut the way they point; R turns; Enter keeps and goes on', async ({ page }) => {
  const number = page.getByLabel('The tips meet at');
  const station = page.getByRole('application', { name: 'Match the picture' });
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  await number.fill('0');
  await number.blur();
  await station.focus();
  await page.keyboard.press('ArrowRight');
  await expect(number).toHaveValue('+0.05');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(number).toHaveValue('\u22120.45');
  await page.keyboard.press('ArrowUp');
  await expect(number).toHaveValue('\u22120.45');
  await page.keyboard.press('r');
  await page.keyboard.press('ArrowUp');
  await expect(number).toHaveValue('\u22120.40');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^Spot 1, along/ })).toBeVisible();
  await expect(page.locator('.so-far')).toContainText('\u22120.40 mm');
});

test('a tap where the tips meet sets the reading; a number too far is questioned, nothing typed is lost', async ({
  page,
}) => {
  const number = page.getByLabel('The tips meet at');
  const loupe = page.getByRole('img', { name: /Wedge 1 across/ });
  const box = (await loupe.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.25);
  const value = Number((await number.inputValue()).replace('\u2212', '-').replace('+', ''));
  expect(value).toBeGreaterThan(0.4);
  await number.fill('3');
  await expect(page.getByText(/1\.00 mm to either side/)).toBeVisible();
  await expect(number).toHaveValue('3');
  await number.press('Enter');
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  await number.fill('0,35');
  await number.press('Enter');
  await expect(page.getByRole('heading', { name: /^Spot 1, along/ })).toBeVisible();
  await expect(page.locator('.so-far')).toContainText('+0.35 mm');
});

test('starts at a random place, and a reading outlives a lost connection', async ({ page, context }) => {
  const number = page.getByLabel('The tips meet at');
  const starts = new Set<string>();
  for (let i = 0; i < 6; i++) {
    starts.add(await number.inputValue());
    await page
      .getByRole('button', { name: /across|along/ })
      .nth(i)
      .click();
  }
  expect(starts.size).toBeGreaterThan(1);
  await context.setOffline(true);
  await page.getByRole('button', { name: 'more' }).click();
  await page.getByRole('button', { name: /It looks like this/ }).click();
  await expect(page.getByRole('complementary', { name: 'Not saved yet' })).toContainText('1 reading not saved yet');
  await context.setOffline(false);
  // The browser notices that it is back and sends by itself.
  await expect(page.getByRole('complementary', { name: 'Not saved yet' })).toBeHidden();
  await page.reload();
  await expect(page.locator('.so-far')).toContainText('mm');
});
