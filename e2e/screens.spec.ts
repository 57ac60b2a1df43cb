import { expect, test, type Page } from '@playwright/test';
import { cutDone, expectScreensInOrder, openDemo, openSetup, startCheck } from './shop';

/** Every screen of a calibration in progress, and the rest of the shop. */
async function screensOf(page: Page): Promise<string[]> {
  await startCheck(page, 'Towpath', 'Full check');
  const base = page.url().replace(/\/print.*/, '');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  for (let i = 0; i < 18; i++) {
    const kept = page.waitForResponse((r) => r.request().method() === 'POST');
    await page.getByRole('button', { name: 'more' }).click();
    await page.getByRole('button', { name: /It looks like this/ }).click();
    await kept;
  }
  await page.getByRole('link', { name: /see the map/ }).click();
  await page.waitForURL(/map/);
  await page.goto(`${base}/settings`);
  await page.getByText('Leave it, and hide it').click();
  await page.getByRole('button', { name: 'Apply this correction' }).click();
  await page.waitForURL(/confirm/);
  await page.goto('/history');
  const entry = (await page.getByRole('link', { name: /UTC/ }).first().getAttribute('href')) ?? '/history';
  await openSetup(page, 'Sluice');
  const setup = new URL(page.url()).pathname;
  return [
    '/',
    '/history',
    entry,
    setup,
    `${setup}/trouble`,
    `${setup}/trouble?seen=turned`,
    `${setup}/cut-file`,
    `${setup}/measure`,
    `${setup}/measure?tool=hand`,
    `${setup}/measure?tool=film`,
    `${setup}/measure?tool=borders`,
    `${setup}/measure?tool=own-test`,
    `${setup}/rolls`,
    '/shop/phones',
    ...['print', 'cut', 'read', 'read?look=ask', 'read?look=rough', 'read?look=scan', 'map', 'settings', 'confirm'].map(
      (s) => `${base}/${s}`,
    ),
    '/nothing-here',
  ];
}

test('axe finds nothing serious on any screen, light and dark; none scrolls sideways at 390 px', async ({ page }) => {
  test.setTimeout(480_000);
  const screens = await screensOf(page);
  await expectScreensInOrder(page, screens);
});

test('every page bears its own title, also in the moment when one page gives way to the next', async ({ page }) => {
  await openDemo(page);
  await page.evaluate(() => {
    const titles: string[] = [];
    Object.assign(window, { titles });
    const note = (): number => titles.push([...document.querySelectorAll('title')].map((t) => t.text).join(' + '));
    new MutationObserver(note).observe(document, { subtree: true, childList: true, characterData: true });
  });
  for (const [name, path] of [
    ['Shop', '/shop'],
    ['Jobs', '/jobs'],
    ['History', '/history'],
    ['Bench', '/'],
  ] as const) {
    await page.getByRole('link', { name, exact: true }).click();
    await page.waitForURL(path);
    await expect(page).toHaveTitle(`${await page.getByRole('heading', { level: 1 }).innerText()} \u00b7 Red Plumb`);
  }
  const titles = await page.evaluate(() => (window as unknown as { titles: string[] }).titles);
  expect(new Set(titles).size).toBeGreaterThanOrEqual(4);
  expect(titles.filter((t) => !/^[^+]+ \u00b7 Red Plumb$/.test(t))).toEqual([]);
});

test('bench: something happened in one tap, undone in one more', async ({ page }) => {
  await openDemo(page);
  const card = page.getByRole('article', { name: 'Heronry' });
  await card.getByRole('button', { name: 'Something happened' }).click();
  await card.getByRole('button', { name: 'machine was moved' }).click();
  await expect(card.getByText('Written down: machine was moved.')).toBeVisible();
  await card.getByRole('button', { name: 'Undo' }).click();
  await expect(card.getByText('Written down')).toHaveCount(0);
  await page.reload();
  await expect(card.getByText(/machine was moved,/)).toHaveCount(0);
});

test('dark or light is chosen by a press and kept', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Make it dark' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
  await page.goto('/history');
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
  await page.getByRole('button', { name: 'Make it light' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'light');
});

test('lengths are shown in the unit of whoever is at the machine', async ({ page }) => {
  await openDemo(page);
  await page.getByLabel('At the machine').selectOption({ label: 'Odo, inches, fractions' });
  await expect(page.getByText(/in at the worst corner/).first()).toBeVisible();
  await page.getByLabel('At the machine').selectOption({ label: 'Marit, mm' });
  await expect(page.getByText(/mm at the worst corner/).first()).toBeVisible();
});

test('a display that shows something else is told; the machine is put back to how it stood at an entry', async ({
  page,
}) => {
  await openDemo(page);
  await page.goto('/shop');
  await page.getByRole('link', { name: 'Towpath' }).click();
  await page.waitForURL(/setups/);
  const row = page.getByRole('row', { name: /OFFSET Y/ });
  const before = /-?[\u2212\d.]+/.exec((await row.getByRole('cell').nth(1).textContent()) ?? '')?.[0] ?? '';
  await row.getByRole('button', { name: /something else/ }).click();
  await row.getByLabel('OFFSET Y shows').fill('99');
  await row.getByRole('button', { name: 'Write it down' }).click();
  await expect(row.getByText(/99 lies outside -20 to 20/)).toBeVisible();
  await expect(row.getByLabel('OFFSET Y shows')).toHaveValue('99');
  await row.getByLabel('OFFSET Y shows').fill('7,5');
  await row.getByRole('button', { name: 'Write it down' }).click();
  await expect(row.getByText('7.5 mm')).toBeVisible();
  await openDemo(page);
  await expect(page.getByRole('article', { name: 'Towpath' })).toContainText('a machine setting was changed');

  await page.goto('/history');
  await page
    .getByRole('row', { name: /Towpath.*confirmed/ })
    .getByRole('link')
    .click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Towpath: out by');
  await page.getByRole('button', { name: /Put the machine back/ }).click();
  await page.getByLabel('OFFSET Y shows now').fill(before);
  await page.getByRole('button', { name: 'I have set them' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('put back, not confirmed since');
});
