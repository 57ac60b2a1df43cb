import { expect, test, type Page } from '@playwright/test';
import {
  cutDone,
  enterReadings,
  enterRims,
  expectAccessible,
  measureRims,
  measureWallsOnTable,
  openSetup,
  readCombsOnTable,
  readPicture,
  startCheck,
} from './shop';

async function startCombs(page: Page, setup: string, line: string): Promise<void> {
  await openSetup(page, setup);
  await page.getByLabel('How will the cut be seen?').selectOption({ label: line });
  await page.getByRole('button', { name: 'Make the check sheet' }).click();
  await page.waitForURL(/print/);
}

async function cutIt(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/\/cut/);
  await cutDone(page);
  await page.waitForURL(/\/read/);
}

test('slits rubbed in: combs are read by the tick that runs on, by tap, key and number, and give the map', async ({
  page,
}) => {
  await startCombs(page, 'Towpath', 'Knife, slits rubbed in');
  await cutIt(page);
  await expect(page.getByRole('heading', { name: /does the long middle slit/ })).toBeVisible();
  await expect(page.getByText(/Keep the dust from your eyes/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: /it crosses the ruler/ }).click();

  // A tap on a printed tick moves the comb to the whole tenth there; a key goes on by half a tick; Shift by a pitch.
  const number = page.getByLabel('The ticks run into one line at');
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  const comb = page.getByRole('img', { name: /^Comb 1 across .*(?<!closer)$/ });
  const box = await comb.boundingBox();
  if (!box) throw new Error('no comb');
  await comb.click({ position: { x: box.width / 2 + (5 * 127 * box.width) / 60 / 53.2, y: box.height * 0.3 } });
  const shown = async (): Promise<number> => Number((await number.inputValue()).replace('\u2212', '-'));
  await expect.poll(shown).toBeGreaterThan(0.44);
  const half = await shown();
  expect(half).toBeLessThan(0.56);
  await page.getByRole('application').focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(shown).toBeGreaterThan(half + 0.02);
  expect(await shown()).toBeLessThan(half + 0.09);
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(shown).toBeGreaterThan(half + 2);
  await number.fill('7 mm');
  await expect(page.getByText('The comb shows up to 3.10 mm to either side.', { exact: false })).toBeVisible();
  await expectAccessible(page);

  await enterReadings(page, await readCombsOnTable(page, 1));
  await page.getByRole('link', { name: /see the map/ }).click();
  await expect(page.getByRole('heading', { name: /Worst corner [\d.]+ mm off\. Limit/ })).toBeVisible();
  await expectAccessible(page);
});

test('a pen in the holder: the map is of scale, rotation and squareness, and says why', async ({ page }) => {
  await startCombs(page, 'Towpath', 'A pen in the holder');
  await cutIt(page);
  await expect(page.getByRole('heading', { name: /does the long middle line/ })).toBeVisible();
  await page.getByRole('link', { name: /it crosses the ruler/ }).click();
  await enterReadings(page, await readCombsOnTable(page, 1));
  await page.getByRole('link', { name: /see the map/ }).click();
  await expect(page.getByRole('heading', { name: /by scale, rotation and squareness/ })).toBeVisible();
  await expect(page.getByText(/the shift is the pen\u2019s own, so it is neither keyed in nor passed/)).toBeVisible();
  await page.getByText('The figures', { exact: true }).click();
  await expect(page.getByRole('row', { name: /offset across cannot be told/ })).toBeVisible();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('discs beside the wedges: walls by caliper count as well', async ({ page }) => {
  await startCheck(page, 'Towpath');
  await cutIt(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: 'Read or measure the discs as well' }).click();
  await expect(page.getByRole('heading', { name: 'Read the discs, or measure their walls' })).toBeVisible();
  await expectAccessible(page);
  await enterRims(page, await measureWallsOnTable(page, 1), 'Wall');
  await page.getByRole('link', { name: /see the map/ }).click();
  await expect(page.getByRole('heading', { name: /Worst corner/ })).toBeVisible();
  await page.getByText('How was this worked out?').click();
  await page.getByText('the map', { exact: true }).click();
  await expect(page.getByText(/^20 readings counted, 0 left out/)).toBeVisible();
});

test('rims of lifted discs are compared with the printed strip of gaps', async ({ page }) => {
  await startCheck(page, 'Stepping Stones');
  await cutIt(page);
  const rims = await measureRims(page, 1, 'Letter');
  const heading = page.getByRole('heading', { name: /^Spot 1: / });
  await expect(heading).toBeVisible();
  await page.getByText('Compare the rims with the printed strip of gaps').click();
  // Keys in a list choose in the list: they do not move the picture.
  const list = page.getByLabel('On the left the rim is like');
  const seen = page.getByRole('img', { name: /^Disc 1 with its rims/ });
  const before = await seen.textContent();
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(list).not.toHaveValue('');
  expect(await seen.textContent()).toBe(before);
  const own = rims.get(1);
  if (!own) throw new Error('no disc 1');
  const nearest = (mm: number): string => (Math.round(Math.max(1.1, Math.min(2.9, mm)) * 10) / 10).toFixed(2);
  for (const [side, mm] of [
    ['On the left', own.left],
    ['On the right', own.right],
    ['Towards you', own.towards],
    ['Away from you', own.away],
  ] as const)
    await page
      .getByLabel(`${side} the rim is like`)
      .selectOption({ label: (await optionFor(page, `${side} the rim is like`, nearest(mm))) ?? '' });
  await expectAccessible(page);
  await page.getByRole('button', { name: /It looks like this/ }).click();
  await expect(page.locator('.so-far .figures').first()).not.toHaveText('\u2013');
  const [across = NaN] = ((await page.locator('.so-far .figures').first().textContent()) ?? '')
    .replaceAll('\u2212', '-')
    .split(',')
    .map((word) => Number.parseFloat(word));
  expect(Math.abs(across - (own.right - own.left) / 2)).toBeLessThanOrEqual(0.11);
});

async function optionFor(page: Page, label: string, mm: string): Promise<string | undefined> {
  const words = await page.getByLabel(label).locator('option').allTextContents();
  return words.find((w) => w.includes(`${mm} mm`));
}
