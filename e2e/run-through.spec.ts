import { expect, test } from '@playwright/test';
import { cutDone, enterReadings, readPicture, startCheck, takeSettings } from './shop';

test('from a check sheet to a confirmed correction, on stand-ins, reading their picture', async ({ page, browser }) => {
  await startCheck(page, 'Low Weir');
  await expect(page.getByRole('link', { name: 'Print file (PDF)' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Print file (PDF)' }).click();
  expect((await download).suggestedFilename()).toMatch(/^check-sheet-[0-9A-Z]{2}-[0-9A-Z]{3}-print\.pdf$/);

  await page.getByRole('button', { name: 'It is something else' }).click();
  await page.getByLabel('It measures').fill('8 25/32 in');
  await page.getByRole('button', { name: 'Take this measure' }).click();
  await expect(page.getByText(/This print is at 97\.0 %.*fit to page/)).toBeVisible();
  await page.getByRole('button', { name: 'Yes, it is right' }).click();

  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.waitForURL(/read/);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'quick' }));

  // Taken up on another browser, where it was left.
  const other = await browser.newContext();
  const elsewhere = await other.newPage();
  await elsewhere.goto(page.url().replace(/\/read.*/, ''));
  await expect(elsewhere).toHaveURL(/read/);
  await other.close();

  await page.getByRole('link', { name: /see the map/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Worst corner');
  await expect(page.getByRole('img', { name: /Error map/ })).toBeVisible();
  await page
    .getByRole('link', {
      name: /Choose the way out|Move the cut in the file|Hide it with a border|Correct it all the same/,
    })
    .click();
  await page.waitForURL(/settings/);

  await takeSettings(page);
  await page.waitForURL(/confirm/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Unload, load again');
  await cutDone(page);
  await expect(page.getByRole('heading', { name: /as if you had never seen it/ })).toBeVisible();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 2, block: 'A4', kind: 'quick' }));
  // Blind: what was read is not shown.
  await expect(page.locator('.so-far').getByText('read', { exact: true })).toHaveCount(10);
  await page.getByRole('link', { name: 'All read: the verdict' }).click();
  await expect(page.getByText(/Constant error .* with 95 % confidence/)).toBeVisible();
  await expect(page.getByText(/Next job: 95 in 100/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'In register' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep it in the history' }).click();
  await page.waitForURL(/save/);
  await page.getByRole('link', { name: 'See it in the history' }).click();
  await expect(page.getByRole('row', { name: /Low Weir.*confirmed/ }).first()).toBeVisible();
});

test('far out: rough position, the shift in the file, another sheet for the confirm', async ({ page }) => {
  await startCheck(page, 'Ferry Steps');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /No: it is off/ }).click();
  const station = page.getByRole('img', { name: /Rough grid 1/ });
  await station.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight');
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('+6.00 mm across, \u22123.00 mm along')).toBeVisible();
  for (const count of [1, 2, 3]) {
    await page.getByRole('button', { name: 'It looks like this' }).click();
    await expect(page.getByText(`${count} of 3 read.`)).toBeVisible();
  }
  await page.getByRole('link', { name: 'Now bring it near' }).click();
  await page.getByRole('button', { name: 'Move it in the file' }).click();
  await page.waitForURL(/cut/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('cut set 2');
  await expect(page.getByRole('link', { name: /Drawing with cut 2 moved \(SVG\)/ })).toBeVisible();
  await cutDone(page);
  await page.waitForURL(/read/);
  await expect(page.getByRole('heading', { name: /^Spot \d/ })).toBeVisible();
});

test('marks not read: one change at a time, each try kept', async ({ page }) => {
  await startCheck(page, 'Sluice');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await page.getByRole('button', { name: 'Marks not read' }).click();
  await page.getByRole('button', { name: 'Still not' }).click();
  await expect(page.getByText(/Wipe the sensor window.*No change/)).toBeVisible();
  await page.getByRole('button', { name: 'Now they are read' }).click();
  await expect(page.getByText('Good. Cut now, and answer above.')).toBeVisible();
  await page.reload();
  await expect(page.getByText(/Wipe the sensor window.*No change/)).toBeVisible();
});
