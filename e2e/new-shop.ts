import { expect, type Page } from '@playwright/test';
import { openDemo } from './shop';

/** A newcomer's shop, simulated so that the whole way can be walked. @returns how many screens were seen. */
export async function newShop(page: Page, answer: (page: Page) => Promise<void>): Promise<void> {
  await openDemo(page);
  // A tap made before the page is awake is lost: it is made again until it took.
  await expect(async () => {
    await page.getByRole('link', { name: 'Start my own shop' }).click({ timeout: 2000 });
    await page.waitForURL(/shop\/start/, { timeout: 4000 });
  }).toPass({ timeout: 30_000 });
  await page.getByLabel('Name of the shop').fill('Kingfisher signs');
  await page.getByLabel('Your name').fill('Ragna');
  await page.getByRole('button', { name: 'Make the shop' }).click();
  await page.waitForURL(/shop\/new/);
  await answer(page);
  await page.getByText('Try it with stand-ins first').click();
  await page.getByRole('button', { name: 'Put it on the bench' }).click();
  await page.waitForURL(/setups/);
}

export const goOn = (page: Page) => page.getByRole('button', { name: 'Go on' }).click();
