import { expect, test } from '@playwright/test';
import {
  cutDone,
  enterReadings,
  expectAccessible,
  expectScreensInOrder,
  printedAndCutOnce,
  readCombsOnTable,
  readPicture,
  takeSettings,
} from './shop';
import { goOn, newShop } from './new-shop';
import { setSimulatedOffset } from './simulated-machine';

test.beforeEach(async ({ context }) => {
  await context.clearCookies();
});

test('a newcomer with one home cutter reads a quick check on the tenth screen; the demo stays apart', async ({
  page,
}) => {
  // 1 bench, 2-5 four questions
  await newShop(page, async () => {
    await page.getByText('Sheets, printer and cutter apart').click();
    await goOn(page);
    await goOn(page);
  });
  // 6 the check, 7 print, 8 cut, 9 first look, 10 reading
  await page.getByRole('button', { name: 'Make the check sheet' }).click();
  await page.waitForURL(/print/);
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(1);
  await expect(page.getByRole('article', { name: 'First machine' })).toBeVisible();
  await page.goto('/history');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is kept yet');
});

test('which way: two cuts in one load, the value changed between; then it is known and used', async ({ page }) => {
  await newShop(page, async () => {
    await page.getByText('Sheets, offset on the cutter').click();
    await goOn(page);
    await page.getByLabel('On which sheet?').selectOption('A4');
    await goOn(page);
  });
  await page.getByRole('button', { name: /Find out which way SIDEWAYS and ALONG THE FEED go/ }).click();
  await printedAndCutOnce(page);
  const rows = page.locator('ol.changes > li');
  await expect(rows).toHaveCount(2);
  for (let i = 0; i < 2; i++) await rows.nth(i).getByRole('textbox').fill('0.5');
  await page.getByRole('button', { name: 'Set, and set 2 is cut' }).click();
  await page.waitForURL(/read/);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: /now the second cut/ }).click();
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 2, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: /which way/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Now it is known which way');
  await page.getByRole('button', { name: 'Keep what was learned' }).click();
  await page.getByRole('link', { name: 'Now check it' }).click();
  await expect(page.getByRole('row', { name: /SIDEWAYS/ })).toContainText('the cut moves');
  await expect(page.getByRole('button', { name: /Find out which way/ })).toHaveCount(0);
});

test('a first hour: the first check learns which way + goes, sets the machine and confirms it, on three sheets', async ({
  page,
}) => {
  let actions = 0;
  const act = async (work: Promise<void>): Promise<void> => {
    actions += 1;
    await work;
  };
  const press = (name: string | RegExp): Promise<void> =>
    act(page.getByRole('button', { name }).or(page.getByRole('link', { name })).first().click());
  const readSheet = async (no: number): Promise<void> => enterReadings(page, await readCombsOnTable(page, no));
  await newShop(page, async () => {
    await act(page.getByText('Sheets, offset on the cutter').click());
    await act(goOn(page));
    await page.getByLabel('On which sheet?').selectOption('A4');
    await act(goOn(page));
  });
  // The shop's name and the person's, the shop made, stand-ins, the setup made.
  actions += 4;
  await setSimulatedOffset(page, 0.24, -0.21);
  await act(page.getByLabel('Limit of this check').fill('0.15 mm'));
  await press('Make the check sheet');
  await page.waitForURL(/print/);
  const first = await page.locator('.crumbs .figures').innerText();
  await press('Yes, it is right');
  await page.waitForURL(/cut/);
  await act(cutDone(page));
  await press(/Yes, like this/);
  await readSheet(1);
  await press(/All read/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'First find which way + goes on SIDEWAYS and ALONG THE FEED',
  );
  await expectAccessible(page);
  await press(/^Find which way/);
  await press('Make the sheet');
  await expect(page.getByRole('heading', { name: /^Print sheet .*, change the value, and cut it/ })).toBeVisible();
  const second = await page.locator('.crumbs .figures').innerText();
  expect(second).not.toBe(first);
  const rows = page.locator('ol.changes > li');
  await expect(rows).toHaveCount(2);
  for (let i = 0; i < 2; i++) await act(rows.nth(i).getByRole('textbox').fill('0.5'));
  await expectAccessible(page);
  await press('Set, and the second sheet is cut');
  await page.waitForURL(/read/);
  await press(/Yes, like this/);
  await readSheet(2);
  await press(/All read/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Now it is known which way + goes');
  await expectAccessible(page);
  await press('Keep what was learned');
  await press('Choose the way out');
  await page.waitForURL(/settings/);
  actions += 1 + (await page.locator('ol.changes > li').count());
  await takeSettings(page);
  await page.waitForURL(/confirm/);
  await press('Print another sheet');
  await page.waitForURL(/print/);
  await press('Yes, it is right');
  await page.waitForURL(/cut|confirm/);
  await act(cutDone(page));
  await page.waitForURL(/confirm/);
  await readSheet(3);
  await press(/the verdict/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/In register|Cannot tell yet/);
  expect(actions).toBeLessThanOrEqual(29);
});

test('pictures only: lift-off discs, both directions in one look, the second sheet for the confirm', async ({
  page,
}) => {
  await newShop(page, async () => {
    await page.getByText('Sheets, printer and cutter apart').click();
    await page.getByText('Pictures only').click();
    await expect(page.getByText(/closed rings for the program to trace/)).toBeVisible();
    await goOn(page);
    await goOn(page);
  });
  await expect(page.getByText(/five spots, 5 discs/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the check sheet' }).click();
  await page.waitForURL(/print/);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Picture of the sheet (PNG)' }).click();
  expect((await download).suggestedFilename()).toMatch(/picture\.png$/);
  await expect(page.getByText(/Offset those outlines outward by 2 mm/)).toBeVisible();
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await expect(page.getByRole('heading', { name: /^Spot 1: make its rims look like the disc/ })).toBeVisible();
  // Tracing the picture takes the stand-ins a few seconds.
  await expect(page.getByLabel('The cut sheet under the loupe')).toBeVisible({ timeout: 30_000 });
  await page.getByText('Measure the rims instead').click();
  await page.getByLabel('Rim on the left').fill('1.8 mm');
  await page.getByLabel('Rim on the right').fill('2.3 mm');
  await expect(page.getByRole('img', { name: /Disc 1 with its rims/ })).toContainText('2.25');
  for (let i = 0; i < 5; i++) {
    await page.getByRole('application', { name: 'Match the disc' }).press('ArrowRight');
    await page.getByRole('button', { name: /It looks like this/ }).click();
    await expect(page.locator('.so-far .figures', { hasText: /\d/ })).toHaveCount(i + 1);
  }
  await page.getByRole('link', { name: /see the map/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Worst corner');
  await expect(page.getByText(/traces its own lines, so they cannot be moved/)).toBeVisible();
});

test('the shop: a cutter described anew, a material whose marks will not show, each beside its picture; axe finds nothing', async ({
  page,
}) => {
  await newShop(page, async () => {
    await page.getByText('Roll printer and roll cutter').click();
    await page.getByLabel(/Name of that spot ink/).fill('Knife');
    await goOn(page);
    await goOn(page);
  });
  await page.goto('/shop');
  await page.getByRole('link', { name: 'Add a material' }).click();
  await page.getByLabel('Name').fill('Night foil');
  await page.getByLabel('Colour').selectOption('metallic');
  await expect(page.getByText('Marks printed on it will not show')).toBeVisible();
  await page.getByLabel('Growth per kelvin').fill('0,00007');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText(/thermal source: expected where the figure is from/)).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('Night foil');
  await page.getByLabel('where that figure is from').first().fill('data sheet, rounded up');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await page.waitForURL(/\/shop$/);
  await expect(page.getByRole('link', { name: 'Night foil' })).toBeVisible();
  const hrefs = await page
    .getByRole('main')
    .getByRole('link')
    .evaluateAll((links) => links.map((l) => l.getAttribute('href') ?? ''));
  const screens = ['/', '/shop', '/shop/new', ...hrefs.filter((h) => h.startsWith('/shop/') && !h.endsWith('/new'))];
  await expectScreensInOrder(page, screens);
});
