import { expect, test } from '@playwright/test';
import { expectAccessible, openSetup } from './shop';

test('print against page: margins by rule say how the print lies, and what to do about it', async ({ page }) => {
  await openSetup(page, 'Heronry');
  await page.getByRole('link', { name: 'Measure by rule' }).click();
  await expect(page.getByRole('heading', { name: 'Heronry: does the print match the page?' })).toBeVisible();
  await expect(page.getByText('Type what you measured; a few lengths are enough.')).toBeVisible();
  // Letter, 215.9 x 279.4 mm: a frame of 182 x 218 in its middle leaves 16.95 and 30.7.
  await page.getByLabel('left margin, at the top').fill('19.45');
  await expect(page.getByText(/Not enough yet/)).toBeVisible();
  await page.getByLabel('left margin, at the bottom').fill('19.45');
  await page.getByLabel('bottom margin, on the left').fill('30.7');
  await page.getByLabel('bottom margin, on the right').fill('30.7');
  const lies = page.getByRole('status', { name: 'The print lies' });
  await expect(lies.getByRole('row', { name: /across 2\.50.mm to the right/ })).toBeVisible();
  await expect(lies.getByRole('row', { name: /turned 0\.00.mm .* no more than measuring can make it/ })).toBeVisible();
  await expect(lies.getByText('These lengths do not tell: scale across, scale along.')).toBeVisible();
  await expect(page.getByText(/It is not in the middle of its page/)).toBeVisible();
  await page.getByText('Widths and lengths too').click();
  await page.getByLabel('width, at the top').fill('183.8');
  await page.getByLabel('length, on the left').fill('220.2');
  await expect(lies.getByRole('row', { name: /width .*too wide/ })).toBeVisible();
  await expect(page.getByText(/It is not at its true size/)).toBeVisible();
  await expectAccessible(page);
});

test('register by hand: what comes of the marks before the sheet is risked, rescue against reprint as arithmetic', async ({
  page,
}) => {
  await openSetup(page, 'Heronry');
  await page.getByRole('link', { name: 'Measure by rule' }).click();
  await page.getByRole('link', { name: 'Register by hand' }).click();
  await expect(page.getByText('Type 2 more marks to see what comes of it.')).toBeVisible();
  const fields = async (label: string) => page.getByLabel(label, { exact: true }).all();
  const [nominalX, nominalY, foundX, foundY] = await Promise.all(
    ['in the drawing, from the left', 'in the drawing, from below', 'found, from the left', 'found, from below'].map(
      fields,
    ),
  );
  for (const [i, [dx, dy]] of (
    [
      [1, -1],
      [1, -1],
    ] as const
  ).entries()) {
    await foundX![i]!.fill(String(Number(await nominalX![i]!.inputValue()) + dx));
    await foundY![i]!.fill(String(Number(await nominalY![i]!.inputValue()) + dy));
  }
  const outcome = page.getByRole('status', { name: 'What comes of it' });
  await expect(
    outcome.getByRole('heading', { name: /Out by 0\.00 mm at the worst corner, up to 0\.\d\d mm/ }),
  ).toBeVisible();
  await expect(outcome.getByText(/The print lies \+1\.00 mm across and \u22121\.00 mm along/)).toBeVisible();
  await expect(outcome.getByText(/Registering it: 3\.00 of work/)).toBeVisible();
  await outcome.getByText('What a sheet costs here').click();
  await outcome.getByLabel('Registering by hand').fill('60');
  await expect(outcome.getByRole('heading', { name: 'Print it again' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Before and after lamination' }).click();
  await page.getByLabel('before: length, on the left').fill('218');
  await page.getByLabel('after: length, on the left').fill('218.9');
  await page.getByLabel('before: width, at the top').fill('182');
  await page.getByLabel('after: width, at the top').fill('182');
  const film = page.getByRole('status', { name: 'The film made it' });
  await expect(film.getByRole('row', { name: /length 0\.41.% too long/ })).toBeVisible();
  await expect(film.getByText(/These lengths do not tell: shift, rotation, out of square/)).toBeVisible();
  // The same two lengths on a print and on its cut tell the cutter's scale by rule alone.
  await page.getByRole('link', { name: 'Two-point distances' }).click();
  await expect(page.getByRole('heading', { name: /how large is the cut against the print/ })).toBeVisible();
  await page.getByLabel('print: width, at the top').fill('132');
  await page.getByLabel('cut: width, at the top').fill('132.66');
  const cut = page.getByRole('status', { name: 'Against the print, the cut is' });
  // One length tells one scale: it is taken for both.
  await expect(cut.getByRole('row', { name: /width 0\.50.% too wide/ })).toBeVisible();
  await expect(cut.getByRole('row', { name: /length 0\.50.% too long/ })).toBeVisible();
  await expectAccessible(page);
});

test('the borders of a finished piece, and the machine\u2019s own test, a row an axis', async ({ page }) => {
  await openSetup(page, 'Heronry');
  await page.getByRole('link', { name: 'Measure by rule' }).click();
  await page.getByRole('link', { name: 'Borders of a piece' }).click();
  await page.getByRole('button', { name: /by caliper/ }).click();
  for (const [label, value] of [
    ['left', '2.4'],
    ['right', '0.6'],
    ['top', '1.5'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(value);
  await expect(page.getByText(/All four sides are needed/)).toBeVisible();
  await page.getByLabel('bottom', { exact: true }).fill('1,5');
  const told = page.getByRole('status', { name: 'What the borders tell' });
  await expect(told.getByRole('heading', { name: 'Out of register at this piece' })).toBeVisible();
  await expect(told.getByText(/The cut lies 0\.90 mm to the left and 0\.00 mm high: out by 0\.90 mm/)).toBeVisible();
  await page.getByRole('button', { name: 'a hole cut in the print' }).click();
  await expect(told.getByText(/The cut lies 0\.90 mm to the right/)).toBeVisible();
  await page.getByRole('link', { name: /own test/ }).click();
  const sideways = page.getByRole('region', { name: 'Sideways' });
  const row = sideways.getByRole('group', { name: 'Lines, sideways' });
  await row.getByRole('button', { name: '10', exact: true }).click();
  await row.getByRole('button', { name: '11', exact: true }).click();
  await expect(sideways.getByText('Line 10/11: +2.5 steps')).toBeVisible();
  await expect(sideways.getByText(/Without the step there is no length/)).toBeVisible();
  await sideways.getByText('The step is not known: learn it from two runs').click();
  const after = sideways.getByRole('group', { name: 'Best line after' });
  await sideways
    .getByRole('group', { name: 'Best line before' })
    .getByRole('button', { name: '8', exact: true })
    .click();
  await sideways.getByLabel('Change that was set').fill('0.6');
  await after.getByRole('button', { name: '9', exact: true }).click();
  await expect(sideways.getByText(/fewer than three apart/)).toBeVisible();
  await after.getByRole('button', { name: '14', exact: true }).click();
  await expect(sideways.getByText(/From line to line: 0\.100 \u00b1 0\.007 mm/)).toBeVisible();
  await sideways.getByRole('button', { name: 'Use this step' }).click();
  await expect(sideways.getByText(/Line 10\/11: \+2\.5 steps, \+0\.25 mm/)).toBeVisible();
  await row.getByRole('button', { name: '14', exact: true }).click();
  await expect(sideways.getByText(/at the end of the row/)).toBeVisible();
  // The other row has boxes that are signed from the middle, and the machine cuts them on a check sheet.
  const along = page.getByRole('region', { name: 'Along the feed' });
  await along.getByLabel('Its lines are labelled with').selectOption('signed');
  await along.getByLabel('How many lines').fill('11');
  await along.getByRole('button', { name: '\u22124', exact: true }).first().click();
  await expect(along.getByText(/^Line \u22124: \u22124 steps$/)).toBeVisible();
  await page.getByLabel('on a check sheet that is loaded for it').check();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Keep this for / }).click();
  await expect(page.getByText(/^Kept with /)).toBeVisible();
  await page.reload();
  await expect(along.getByRole('group', { name: 'Lines, along the feed' }).getByRole('button')).toHaveText([
    ...['\u22125', '\u22124', '\u22123', '\u22122', '\u22121', '0', '+1', '+2', '+3', '+4', '+5'],
  ]);
  await sideways.getByText('How this row is labelled').click();
  await expect(sideways.getByLabel('From line to line')).toHaveValue('0.10');
});
