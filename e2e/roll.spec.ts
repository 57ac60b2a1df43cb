import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, openSetup } from './shop';

async function toRolls(page: Page, setup: string): Promise<void> {
  await openSetup(page, setup);
  await page.getByRole('link', { name: 'Long rolls' }).click();
  await expect(page.getByRole('heading', { level: 1, name: `${setup}: rolls` })).toBeVisible();
}

/** A strip of the offered size, read by the stand-in. */
async function stripRead(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Make the strip' }).click();
  await page.getByRole('link', { name: 'It is cut: read it' }).click();
  await page.getByRole('button', { name: 'Let the stand-in read what is left' }).click();
  await expect(page.getByRole('heading', { level: 1, name: '80 of 80' })).toBeVisible();
}

/** Growth of the cut along the roll as the page tells it, mm a metre. */
async function feedOf(page: Page): Promise<number> {
  await page.getByRole('link', { name: 'Drift', exact: true }).click();
  const cell = page.getByRole('row', { name: /^Feed/ }).getByRole('cell').first();
  return Number((await cell.innerText()).replace('\u2212', '-').replace(/ mm\/m/, ''));
}

/** Tells what LENGTH on Towpath's display shows. @returns what it stood at before. */
async function tellLength(page: Page, value: string): Promise<string> {
  await openSetup(page, 'Towpath');
  const row = page.getByRole('row', { name: /^LENGTH/ });
  const cell = (await row.getByRole('cell').nth(1).textContent()) ?? '';
  await row.getByRole('button', { name: 'LENGTH shows something else' }).click();
  await row.getByLabel('LENGTH shows').fill(value);
  await row.getByRole('button', { name: 'Write it down' }).click();
  await expect(row.getByRole('button', { name: 'LENGTH shows something else' })).toBeVisible();
  return (/[-\u2212\d.]+/.exec(cell)?.[0] ?? '0').replace('\u2212', '-');
}

test('from strip to what is keyed in, a second strip that confirms it, and sections', async ({ page }) => {
  // Far from right, whatever was keyed in before.
  const before = await tellLength(page, '1');
  await stripToSections(page);
  // As the other tests know it.
  await tellLength(page, before);
});

async function stripToSections(page: Page): Promise<void> {
  await toRolls(page, 'Towpath');
  await page.getByRole('button', { name: 'Make the strip' }).click();
  await expect(page.getByRole('img', { name: /The first station/ })).toBeVisible();
  await expectAccessible(page);
  const pages = await page.request.get(
    (await page.getByRole('link', { name: /a page for each station/ }).getAttribute('href')) ?? '',
  );
  expect(pages.headers()['content-type']).toBe('application/pdf');
  await page.getByRole('link', { name: 'It is cut: read it' }).click();
  // One figure by eye, superseded by nobody: the stand-in reads what is left.
  await page.getByLabel('The tips meet at').fill('0.10');
  await page.getByLabel('The tips meet at').blur();
  await page.getByRole('application', { name: 'Match the picture' }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('The tips meet at')).toHaveValue('+0.15');
  await page.keyboard.press('Enter');
  await expect(page.getByText('79 still to read')).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1, name: '1 of 80' })).toBeVisible();
  await page.getByRole('button', { name: 'Let the stand-in read what is left' }).click();
  await expect(page.getByRole('heading', { level: 1, name: '80 of 80' })).toBeVisible();
  expect(Math.abs(await feedOf(page))).toBeGreaterThan(0.3);
  await expect(page.getByRole('img', { name: /^Along/ })).toBeVisible();
  await page.getByLabel('The rule says').fill('999,5');
  await page.getByLabel('Laminated before the cut: it says then').fill('1000,2');
  await page.getByRole('button', { name: 'Keep this length' }).click();
  await expect(
    page.getByText(/By rule the print is 0\.50 mm\/m too short; lamination stretched it by 0\.70 mm\/m/),
  ).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Key in' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /The cut runs .* a metre/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Correct a cut file by this drift' }).click();
  await page.locator('#cut-file').setInputFiles({
    name: 'long.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="4000mm" viewBox="0 0 200 4000"><path d="M10 3990H190V10H10Z" fill="none" stroke="#ff0000"/></svg>',
    ),
  });
  await expect(page.getByRole('radio', { name: /By the steady drift of the roll begun/ })).toBeChecked();
  await expect(page.getByText(/The cut moves by up to \d/)).toBeVisible();
  await expect(page.getByText(/Measured about the middle of the leading edge/)).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: /^I have set LENGTH to/ }).click();
  await expect(page.getByText(/It stands at .* now: this strip was cut before that/)).toBeVisible();
  await page.getByRole('link', { name: 'It is keyed in: another strip' }).click();
  await stripRead(page);
  // What the steps of 0.1 per mille leave, and what one strip cannot tell.
  expect(Math.abs(await feedOf(page))).toBeLessThan(0.15);

  await page.getByRole('link', { name: 'Sections' }).click();
  await page.getByLabel('Length you would type, to be checked').fill('100');
  await page.getByRole('button', { name: 'Work out the sections' }).click();
  await expect(page.getByText(/100\.00 mm breaks a row/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('row', { name: /^cheapest sections that hold/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /finishing: all in one/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Pieces in all').fill('80');
  await page.getByLabel('Wanted so long after printing begins').fill('1');
  await page.getByText('by its origin alone').click();
  await page.getByText('Measure it: rewind four times or more').click();
  await page.getByLabel('Shifts after each rewind').fill('0,10; 0,12; 0,11; 0,13');
  await page.getByRole('button', { name: 'Reckon with that' }).click();
  await expect(page.getByLabel(/origin.s own scatter/)).toHaveValue('0.02');
  await page.getByRole('button', { name: 'Work out the sections' }).click();
  await expect(page.getByRole('row', { name: 'rows in all 80' })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('columnheader', { name: 'late' })).toBeVisible();
  // What was typed before is still there.
  await expect(page.getByLabel('Length you would type, to be checked')).toHaveValue('100.00');
  await page.getByText('Measure it: rewind four times or more').click();
  await expect(page.getByLabel('Shifts after each rewind')).toHaveValue('0.10; 0.12; 0.11; 0.13');
  await sectionConfirmed(page);
}

/** One section of those that were worked out, cut and measured. */
async function sectionConfirmed(page: Page): Promise<void> {
  const link = page.getByRole('link', { name: /^Confirm it: cut one section of \d+ rows/ });
  const rowsOf = async (): Promise<string> => /of (\d+) rows/.exec((await link.textContent()) ?? '')?.[1] ?? '';
  const ifAllWereOut = Number(await rowsOf());
  // Only the length was keyed in: what goes sideways stays, and sections are shorter for it.
  await page.getByLabel(/the steady drift is keyed in/).uncheck();
  await page.getByRole('button', { name: 'Work out the sections' }).click();
  await expect.poll(async () => Number(await rowsOf()), { timeout: 30_000 }).toBeLessThan(ifAllWereOut);
  const rows = await rowsOf();
  await link.click();
  await expect(page.getByLabel('Pieces', { exact: true })).toHaveValue(rows);
  await page.getByRole('button', { name: 'Begin the log' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Measure the first piece' })).toBeVisible();
  const looks = Math.ceil(Number(rows) / Math.max(1, Math.floor(Number(rows) / 10)));
  for (let i = 0; i < looks; i++) {
    const heading = page.getByRole('heading', { name: /^Measure piece \d+$/ });
    const due = (await heading.textContent()) ?? '';
    await page.getByRole('button', { name: 'Let the stand-in measure it' }).click();
    await expect(page.getByRole('heading', { name: due, exact: true })).toBeHidden();
  }
  await expect(page.getByText('All pieces that were due are measured.')).toBeVisible();
  await expect(page.getByRole('heading', { level: 1, name: /^It held/ })).toBeVisible();
}

test('the log of a run: measured piece by piece, told when to stop, kept through a sleep', async ({
  page,
  context,
}) => {
  await toRolls(page, 'Otter Pool');
  await page.getByText('A run as it goes').click();
  await page.getByLabel('Pieces', { exact: true }).fill('60');
  await page.getByRole('button', { name: 'Begin the log' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Measure the first piece' })).toBeVisible();
  await expectAccessible(page);
  const piece = async (no: number, along: string): Promise<void> => {
    await expect(page.getByRole('heading', { name: `Measure piece ${no}`, exact: true })).toBeVisible();
    for (const side of ['left', 'right']) {
      await page.getByLabel(`${side}, across`).fill('0.02');
      await page.getByLabel(`${side}, along`).fill(along);
    }
    await page.getByRole('button', { name: 'Save piece' }).click();
  };
  await piece(1, '0.02');
  await expect(page.getByRole('heading', { level: 1, name: 'Go on' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Measure piece 6', exact: true })).toBeVisible();
  await context.setOffline(true);
  await piece(6, '0.06');
  await expect(page.getByText(/Readings are kept in this browser/)).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole('heading', { name: 'Measure piece 11', exact: true })).toBeVisible({ timeout: 20_000 });
  await piece(11, '0.11');
  await piece(16, '0.15');
  await expect(page.getByRole('heading', { level: 1, name: /^(Watch|Stop)/ })).toBeVisible();
  await piece(21, '0.55');
  await expect(page.getByRole('heading', { level: 1, name: 'Stop: a piece is out' })).toBeVisible();
  await expectAccessible(page);
  await page.getByText('Several pieces as a list').click();
  await page.getByRole('textbox', { name: /One line a piece/ }).fill('piece,side,across,along\n26,left,0.1,x\n');
  await expect(page.getByText(/Line 2, along/)).toBeVisible();
  await page.getByRole('button', { name: 'Close this roll' }).click();
  await expect(page.getByRole('button', { name: 'Open it again' })).toBeVisible();
});

test('a strip too narrow for its figures is refused in words; one piece to be copied has its own files', async ({
  page,
}) => {
  await toRolls(page, 'Otter Pool');
  await page.getByText('One small piece, copied').click();
  await page.getByLabel('Printable width').fill('60');
  await page.getByRole('button', { name: 'Make the strip' }).click();
  await expect(page.getByText(/60 mm is too narrow for figures at 2 places/)).toBeVisible();
  await page.getByLabel('right').uncheck();
  await page.getByRole('button', { name: 'Make the strip' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Print the piece, copied 20 times' })).toBeVisible();
  const svg = await page.request.get(
    (await page.getByRole('link', { name: /The piece: SVG/ }).getAttribute('href')) ?? '',
  );
  expect(await svg.text()).toContain('<svg');
});

test('pieces cut off a strip are scanned: found, named by their discs, looked at, used', async ({ page }) => {
  await toRolls(page, 'Towpath');
  await page.getByRole('button', { name: 'Make the strip' }).click();
  await page.getByRole('link', { name: 'Scan the pieces' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Scan the pieces' })).toBeVisible();
  await page.getByLabel('From station').fill('2');
  for (const turn of ['0', '180']) {
    await page.getByLabel('Pieces turned by').selectOption(turn);
    await page.getByRole('button', { name: 'Scan them' }).click();
    const line = page.getByRole('listitem').filter({ hasText: `pieces-from-2-turned-${turn}.png` });
    await expect(line).toContainText('12 of 12 discs measured', { timeout: 60_000 });
  }
  const table = page.getByRole('table', { name: 'Stations in these scans' });
  await expect(table.getByRole('row')).toHaveCount(13);
  await expect(page.getByText('taken together they are free of the lamp')).toBeVisible();
  await table.getByRole('button', { name: '4 right' }).click();
  await expect(page.getByRole('img', { name: /^Station 4 right magnified, (good|partial): / })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('checkbox', { name: 'Count station 7 left' }).uncheck();
  await page.getByRole('button', { name: 'Use these 11 discs' }).click();
  await expect(page).toHaveURL(/look=drift/);
  await page.getByRole('link', { name: 'Read', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: '22 of' })).toBeVisible();
  // A picture of something else is told so, and taken away.
  await page.getByRole('link', { name: 'Scan pieces' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Scan the pieces' })).toBeVisible();
  await page.locator('input[type=file]').setInputFiles('docs/screenshots/roll-drift.png');
  await expect(page.getByText('No coded disc was found in it')).toBeVisible({ timeout: 30_000 });
});
