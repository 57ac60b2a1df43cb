import { expect, test } from '@playwright/test';
import { cutDone, enterReadings, expectAccessible, readPicture, startCheck } from './shop';

test('a second look: blind to the first, contradictions named, the next best spot offered, and how steady the eye is', async ({
  page,
}) => {
  await startCheck(page, 'Towpath');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/\/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  const looks = await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'quick' });
  await enterReadings(page, looks);
  await page.getByRole('link', { name: /see the map/ }).click();

  const again = page.getByRole('region', { name: 'Looking again' });
  await expect(
    again.getByText(/Of single spots, spot \d+ helps most, looked at once more|No single spot would take much/),
  ).toBeVisible();
  await again.getByRole('link', { name: 'Take a second look at every figure' }).click();
  await expect(page.getByRole('heading', { name: /^A second look/ })).toBeVisible();
  // Nothing of the first look is shown.
  await expect(page.getByRole('link', { name: '10 still to read' })).toBeVisible();
  await expect(page.locator('.so-far .figures').first()).toHaveText('\u2013');
  const [slip, ...right] = looks;
  if (!slip) throw new Error('a figure was read');
  const shifted = { ...slip, value: slip.value > 0 ? slip.value - 0.8 : slip.value + 0.8 };
  await enterReadings(page, [shifted, ...right]);
  await expect(page.locator('.so-far .figures').first()).toHaveText('read');
  await expectAccessible(page);
  await page.getByRole('link', { name: /see the map/ }).click();

  await expect(page.getByText(/contradict each other. A third look tells which is wrong/)).toBeVisible();
  await page.getByRole('link', { name: 'Look once more' }).click();
  await expect(page.getByRole('heading', { name: /^A third look/ })).toBeVisible();
  await enterReadings(page, [slip]);
  await page.getByRole('link', { name: '9 still to read' }).click();
  await expect(page.getByText(/is the odd one of 3 looks and is left out/)).toBeVisible();
  await expect(
    again.getByText(/Looks at the same figure scatter by 0\.000 mm .* Verdicts now use it instead of the usual/),
  ).toBeVisible();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('readings as a list: what is wrong is told by line, nothing is kept before it is right, then all at once', async ({
  page,
}) => {
  await startCheck(page, 'Towpath');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/\/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  await page.getByRole('link', { name: 'Type or drop a list instead' }).click();
  await expect(page.getByRole('heading', { name: 'Readings as a list' })).toBeVisible();
  const list = page.getByLabel('One line a spot: spot, across, along');
  await expect(page.getByRole('button', { name: /^Keep these/ })).toBeDisabled();
  await list.fill('spot;across;along\n1;0,20;left\n9;0;0');
  await expect(page.getByText('Line 2, along: "left" is not a length.')).toBeVisible();
  await expect(page.getByText(/^Line 3, spot: There is no figure 9 across/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Put right what is marked first' })).toBeDisabled();
  await expectAccessible(page);
  const rows = [1, 2, 3, 4, 5].map((spot) => `${spot};0,20;${spot === 4 ? '' : '-0,10'}`);
  await page.getByLabel('or a CSV file').setInputFiles({
    name: 'readings.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['spot;across;along', ...rows].join('\r\n')),
  });
  await expect(page.getByRole('row', { name: /^4 \+0\.20 mm \u2013$/ })).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole('button', { name: 'Keep these 9 readings' }).click();
  await page.waitForURL(/\/map/);
  await expect(page.getByRole('heading', { name: /Worst corner/ })).toBeVisible();
});
