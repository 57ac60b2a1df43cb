import { expect, test, type Page } from '@playwright/test';
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
  const cancel = page.getByRole('button', { name: 'Cancel check' });
  if ((await cancel.count()) > 0) await cancel.click();
});

const unsaved = (page: Page) => page.getByRole('complementary', { name: 'Not saved yet' });
const number = (page: Page) => page.getByLabel('The tips meet at');

async function type(page: Page, value: string): Promise<void> {
  await number(page).fill(value);
  await number(page).press('Enter');
}

test('readings made while the server cannot be asked are kept, said not to be saved, and saved once it answers', async ({
  page,
}) => {
  // What the server says while its database is being started again.
  const isAction = (headers: Record<string, string>) => 'next-action' in headers;
  let isStopped = true;
  await page.route('**/calibrations/**', async (route) => {
    if (isStopped && isAction(route.request().headers()))
      await route.fulfill({ status: 500, contentType: 'text/plain', body: 'The database has stopped' });
    else await route.fallback();
  });
  await type(page, '0.20 mm');
  await type(page, '-0.15 mm');
  await expect(unsaved(page)).toContainText('2 readings not saved yet.');
  await expect(page.locator('.so-far')).toContainText('+0.20 mm \u2026');
  await expect(page.getByText('Saving 2 readings ...')).toBeVisible();
  // Another page says it too, and the readings are there when one comes back.
  const here = page.url();
  // Before the page is awake nothing is shown either: what was kept is sent first.
  const sent = page.waitForResponse((r) => isAction(r.request().headers()) && r.ok());
  await page.goto('/');
  await sent;
  await expect(unsaved(page)).toBeHidden();
  isStopped = false;
  await page.goto(here);
  await expect(page.locator('.so-far')).not.toContainText('\u2026');
  await expect(page.locator('.so-far')).toContainText('+0.20 mm');
});

test('a check that was cancelled in another tab refuses the reading by name; it stays until it is discarded', async ({
  page,
  context,
}) => {
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByRole('button', { name: 'Cancel check' }).click();
  await expect(other.getByRole('heading', { name: /was cancelled/ })).toBeVisible();
  await other.close();
  await type(page, '0.20 mm');
  await expect(unsaved(page)).toContainText('Spot 1 across: not saved. This check was cancelled');
  await expect(page.locator('.so-far')).not.toContainText('+0.20 mm');
  await page.reload();
  await expect(unsaved(page)).toContainText('Spot 1 across');
  await unsaved(page).getByRole('button', { name: 'Discard' }).click();
  await expect(unsaved(page)).toBeHidden();
});

test('nothing is kept that nobody moved; the last one can be taken back; after the last, Enter goes on', async ({
  page,
}) => {
  const station = page.getByRole('application', { name: 'Match the picture' });
  await page.getByRole('button', { name: /It looks like this/ }).click();
  await expect(page.getByText(/Move the picture first/)).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  await type(page, '0.20 mm');
  await expect(page.locator('.so-far')).toContainText('+0.20 mm');
  await station.focus();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  await expect(page.locator('.so-far')).not.toContainText('+0.20 mm');
  const figures = await page.locator('.so-far li').count();
  for (let i = 0; i < figures; i++) await type(page, `0.${String(10 + i)} mm`);
  await expect(page.getByRole('heading', { name: `All ${String(figures)} figures are read` })).toBeVisible();
  const before = await page.locator('.so-far').textContent();
  const next = page.getByRole('link', { name: /All read/ });
  await expect(next).toBeFocused();
  // Undone and read again, the last one stands as it was read then.
  await page.getByRole('button', { name: 'Undo' }).click();
  await type(page, '0.15 mm');
  await expect(page.locator('.so-far')).not.toHaveText(before ?? '');
  await expect(next).toBeFocused();
  await page.keyboard.press('Enter');
  await page.waitForURL(/map/);
  await page.goBack();
  await expect(page.getByRole('heading', { name: `All ${String(figures)} figures are read` })).toBeVisible();
});
