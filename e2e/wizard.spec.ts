import { expect, test, type Page } from '@playwright/test';
import { goOn, newShop } from './new-shop';
import { enterReadings, expectAccessible, printedAndCutOnce, readCombsOnTable, readPicture, cutDone } from './shop';
import { setSimulatedOffset } from './simulated-machine';

/** Both rows of the machine's own test bear letters, a tenth of a mm apart, and are cut on a check sheet. */
async function describeOwnTest(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Measure by rule' }).click();
  await page.getByRole('link', { name: /own test/ }).click();
  for (const name of ['Sideways', 'Along the feed']) {
    const row = page.getByRole('region', { name });
    await row.getByLabel('Its lines are labelled with').selectOption('letters');
    await row.getByLabel('From line to line').fill('0.1 mm');
  }
  await page.getByLabel('on a check sheet that is loaded for it').check();
  await page.getByRole('button', { name: /^Keep this for / }).click();
  await expect(page.getByText(/^Kept with /)).toBeVisible();
}

/** Types every line that is asked for by its own label. @returns the labels */
async function pickLines(page: Page): Promise<string[]> {
  const rows = page.locator('ol.changes > li');
  await expect(rows.first()).toBeVisible();
  await expect(page.getByLabel(/shows now/)).toHaveCount(0);
  await expect(rows.first().getByText(/Load a check sheet for it/)).toBeVisible();
  const letters: string[] = [];
  for (const row of await rows.all()) {
    const words = (await row.locator('.set-words').textContent()) ?? '';
    const letter = /pick line ([A-O])$/.exec(words.trim())?.[1] ?? '';
    letters.push(letter);
    const field = row.getByLabel(/^Line picked in LINES/);
    await field.fill('Q');
    await expect(row.getByText(/"Q" is no line of LINES/)).toBeVisible();
    await field.fill(letter.toLowerCase());
    await expect(row.getByText(/is no line|was meant/)).toHaveCount(0);
  }
  return letters;
}

/** One test of directions, from its button to what it tells. @returns the lines that were picked for its second cut */
async function learn(page: Page): Promise<string[]> {
  await page.getByRole('button', { name: /Find out which way/ }).click();
  await printedAndCutOnce(page);
  const letters = await pickLines(page);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Set, and set 2 is cut' }).click();
  await page.waitForURL(/read/);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: /now the second cut/ }).click();
  await expect(page.getByRole('heading', { name: /^Spot 1, across/ })).toBeVisible();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 2, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: /which way/ }).click();
  await page.getByRole('button', { name: 'Keep what was learned' }).click();
  return letters;
}

test('a wizard whose lines bear letters: described once, learned by two tests, its line is asked for by its letter', async ({
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
  await setSimulatedOffset(page, 0.24, -0.21);
  const setup = page.url();
  await expect(page.getByText(/A wizard hides its value: it takes this test twice/)).toBeVisible();
  await describeOwnTest(page);
  await page.goto(setup);
  // Half a mm from the middle of fifteen, and back again.
  expect(await learn(page)).toEqual(['M', 'M']);
  await page.goto(setup);
  expect(await learn(page)).toEqual(['C', 'C']);
  await page.goto(setup);
  await expect(page.getByRole('button', { name: /Find out which way/ })).toHaveCount(0);
  await page.getByLabel('Limit of this check').fill('0.15 mm');
  await page.getByRole('button', { name: 'Make the check sheet' }).click();
  await page.waitForURL(/print/);
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await enterReadings(page, await readCombsOnTable(page, 1));
  await page.getByRole('link', { name: /All read/ }).click();
  await page.getByRole('link', { name: 'Choose the way out' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Pick line [A-O] in LINES \w+/);
  await pickLines(page);
  await expectAccessible(page);
  await page.getByRole('button', { name: /I have set them|Apply this correction/ }).click();
  await page.waitForURL(/confirm/);
});
