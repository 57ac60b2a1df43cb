import { expect, test } from '@playwright/test';
import { cutDone, enterReadings, expectAccessible, readPicture, startCheck } from './shop';

test('another load before any correction: asked whether it was loaded again, then told what changes each time', async ({
  page,
}) => {
  await startCheck(page, 'Towpath');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/\/cut/);
  await expect(page.getByRole('radio', { name: /Yes: unloaded, loaded again/ })).toHaveCount(0);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: /see the map/ }).click();
  await expect(page.getByText(/This is one load/)).toBeVisible();
  await page.getByRole('link', { name: 'Cut another load first' }).click();
  await page.waitForURL(/\/cut/);
  await expect(page.getByText(/Unload the sheet, load it again/)).toBeVisible();
  // Nothing is answered beforehand.
  await page.getByRole('button', { name: 'Cut done' }).click();
  await expect(page.getByText('First say whether you reloaded the sheet.')).toBeVisible();
  await page.getByRole('radio', { name: /No: it still lies as it was/ }).check();
  await expect(page.getByText(/cannot show what changes with every load/)).toBeVisible();
  await cutDone(page);
  await page.waitForURL(/read/);
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 2, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: /see the map/ }).click();
  const loads = page.getByRole('region', { name: 'What changes with every load' });
  await expect(loads.getByRole('row')).toHaveCount(3);
  await expect(page.getByText(/Two loads (agree|differ)/)).toBeVisible();
  await page.getByText('How was this worked out?').click();
  await page.getByText('the worst corner', { exact: true }).click();
  await expect(page.getByText(/root of the sum of squares: \d\.\d{3} mm/)).toBeVisible();
  await page.getByText('the map', { exact: true }).click();
  await expect(page.getByText(/20 readings counted, 0 left out, 2 loads/)).toBeVisible();
  await expectAccessible(page);
});
