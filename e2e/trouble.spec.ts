import { expect, test } from '@playwright/test';
import { openSetup } from './shop';

test('what\u2019s wrong: the picture that looks like the sheet, what to look at, what the last check says, what to do', async ({
  page,
}) => {
  await openSetup(page, 'Heronry');
  await page.getByRole('link', { name: 'What\u2019s wrong?' }).click();
  await expect(page.getByRole('heading', { name: 'Heronry: what does the cut sheet look like?' })).toBeVisible();
  await expect(page.getByRole('main').getByRole('listitem').getByRole('link')).toHaveCount(8);
  await page.getByRole('link', { name: /Different every time/ }).click();
  const found = page.getByRole('region', { name: 'Different every time' });
  await expect(found.getByText(/Light: a lamp/)).toBeVisible();
  await expect(found.getByText(/One load is all that was measured|It agrees|It speaks against it/)).toBeVisible();
  await page.getByRole('link', { name: /Turned: out to one side/ }).click();
  const turned = page.getByRole('region', { name: /Turned/ });
  await expect(
    turned.getByText(/It speaks against it: this could be at most 0\.\d\d mm|It agrees: rotation alone/),
  ).toBeVisible();
  await turned.getByRole('link', { name: /Find out what it uses its marks for/ }).click();
  await expect(page.getByText('What it uses its marks for:')).toBeVisible();
});
