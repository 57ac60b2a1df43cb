import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, openDemo } from './shop';

async function save(page: Page, path: string): Promise<void> {
  await page.goto('/shop/archive');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save the whole shop' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^river-and-trail-workshop-\d{4}-\d\d-\d\d\.jsonl\.gz$/);
  await download.saveAs(path);
}

async function openOtter(page: Page): Promise<void> {
  await page.goto('/shop');
  await page.getByRole('region', { name: 'Printers + cutters' }).getByRole('link', { name: 'Otter Pool' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Otter Pool');
}

/** What the record says that the first setting stands at. */
async function firstValue(page: Page): Promise<string> {
  await openOtter(page);
  const button = page.getByRole('button', { name: /shows something else$/ }).first();
  return (await button.locator('xpath=preceding-sibling::span[1]').innerText()).trim();
}

async function tellShown(page: Page, value: string): Promise<void> {
  await openOtter(page);
  await page
    .getByRole('button', { name: /shows something else$/ })
    .first()
    .click();
  await page.getByRole('textbox', { name: /shows$/ }).fill(value);
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByRole('button', { name: 'Write it down' })).toHaveCount(0);
}

test.describe.configure({ mode: 'serial' });

test('a whole shop out and in: looked at first, put in its place when told, put back again', async ({ page }, info) => {
  await openDemo(page);
  const archive = info.outputPath('shop.gz');
  await save(page, archive);
  const before = await firstValue(page);
  const other = '17';
  await tellShown(page, other);

  await page.goto('/shop/archive');
  await page.getByLabel('Archive of a shop').setInputFiles(archive);
  await expect(page.getByText(/^It takes the place of/)).toContainText('2 records that are here');
  await expect(page.getByRole('listitem').filter({ hasText: `keyed in last ${other}` })).toHaveCount(1);
  await expect(page.getByText('The machines do not go back with the record.')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Leave everything as it is' }).click();
  expect(await firstValue(page)).toContain(other);

  const bring = async (): Promise<void> => {
    await page.getByRole('button', { name: /^Put it in the place of/ }).click();
    await expect(page.getByText('It is in its place.')).toBeVisible();
  };
  await page.goto('/shop/archive');
  await page.getByLabel('Archive of a shop').setInputFiles(archive);
  await bring();
  expect(await firstValue(page)).toBe(before);

  await page.goto('/shop/archive');
  await page.getByRole('button', { name: 'Look at it, to put it back' }).click();
  await bring();
  expect(await firstValue(page)).toContain(other);

  await page.goto('/shop/archive');
  await page.getByRole('button', { name: 'Look at it, to put it back' }).click();
  await bring();
  expect(await firstValue(page)).toBe(before);
});

test('an archive that was cut short is refused with the reason; nothing of it is kept', async ({ page }, info) => {
  await openDemo(page);
  const archive = info.outputPath('shop.gz');
  await save(page, archive);
  const whole = readFileSync(archive);
  writeFileSync(archive, whole.subarray(0, whole.length - 100));
  await page.getByLabel('Archive of a shop').setInputFiles(archive);
  await expect(page.getByRole('alert').filter({ hasText: 'cut short' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Choose another file' }).click();
  await expect(page.getByLabel('Archive of a shop')).toBeVisible();
});
