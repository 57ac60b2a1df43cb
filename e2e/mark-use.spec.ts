import { expect, test } from '@playwright/test';
import { cutDone, enterReadings, expectAccessible, openSetup, readPicture } from './shop';

test('what a machine uses its marks for: a sheet with moved marks is printed, cut, read, and tells it', async ({
  page,
}) => {
  await openSetup(page, 'Low Weir');
  const setup = page.url();
  await page.getByText('What it uses its marks for: not known yet').click();
  await page.getByRole('button', { name: 'Find out what it uses its marks for' }).click();
  await page.waitForURL(/print/);
  await expect(page.getByText(/stand up to 0.9 mm from their places, on purpose/)).toBeVisible();
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'quick' }));
  await page.getByRole('link', { name: /what are the marks used for/ }).click();
  await expect(
    page.getByRole('heading', { name: 'This machine takes from its marks: shift, rotation and two scales' }),
  ).toBeVisible();
  await page.getByText('How was this worked out?').click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep what was learned' }).click();
  await expect(page.getByText('This is kept.')).toBeVisible();
  await page.goto(setup);
  await expect(page.getByText('What it uses its marks for: shift, rotation and two scales')).toBeVisible();
});
