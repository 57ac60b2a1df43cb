import { expect, test, type Page } from '@playwright/test';
import { cutDone, enterReadings, openDemo, openSetup, readPicture, startCheck } from '../../e2e/shop';

const FOLDER = 'docs/screenshots';

async function shoot(page: Page, name: string): Promise<void> {
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  await page.waitForLoadState('networkidle');
  await page.evaluate(async () => {
    await document.fonts.ready;
    window.scrollTo({ top: 0, behavior: 'instant' });
  });
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
}

test('one picture of each main view', async ({ page }) => {
  await openDemo(page);
  await shoot(page, 'bench');
  await page.getByRole('article', { name: 'Towpath' }).getByRole('link', { name: 'Check it again' }).click();
  await page.waitForURL(/setups/);
  await shoot(page, 'set-up');
  await startCheck(page, 'Osier', 'Full check');
  await shoot(page, 'print');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await shoot(page, 'cut');
  await cutDone(page);
  await page.getByRole('link', { name: /Yes, like this/ }).click();
  const looks = await readPicture(page, { no: 1, setNo: 1, block: 'A4', kind: 'full' });
  await enterReadings(page, looks.slice(0, 5));
  await page.getByLabel('The tips meet at').fill((looks[5]?.value ?? 0).toFixed(2));
  await page.getByLabel('The tips meet at').blur();
  await shoot(page, 'read');
  await enterReadings(page, looks.slice(5));
  await page.getByRole('link', { name: /see the map/ }).click();
  await page.waitForURL(/map/);
  await shoot(page, 'map');
  await page
    .getByRole('link', {
      name: /Choose the way out|Move the cut in the file|Hide it with a border|Correct it all the same/,
    })
    .click();
  await page.waitForURL(/settings/);
  await shoot(page, 'settings');
  await page.getByText('Move the cut in the file', { exact: true }).click();
  await page.getByRole('button', { name: 'Apply this correction' }).click();
  await page.waitForURL(/confirm/);
  await cutDone(page);
  await page.getByRole('heading', { name: /as if you had never seen it/ }).waitFor();
  await enterReadings(page, await readPicture(page, { no: 1, setNo: 2, block: 'A4', kind: 'full' }));
  await page.getByRole('link', { name: 'All read: the verdict' }).click();
  await page.getByText(/Constant error/).waitFor();
  await shoot(page, 'confirm');
  await page.getByRole('button', { name: 'Keep it in the history' }).click();
  await page.waitForURL(/save/);
});

test('daily checks, and a setup over time', async ({ page }) => {
  await openDemo(page);
  await page.goto('/');
  const card = page.getByRole('article', { name: 'Otter Pool' });
  await card.getByRole('link', { name: 'Measure a piece, 2 minutes' }).click();
  await page.waitForURL(/daily/);
  await page.getByRole('link', { name: 'one photo' }).click();
  await page.getByLabel('Cut width').fill('60');
  await page.getByLabel('Cut height').fill('40');
  await page.getByRole('button', { name: 'Photograph the label' }).click();
  await page.getByText('at this piece').waitFor();
  await page.evaluate(() => {
    window.scrollTo(0, 0);
  });
  await shoot(page, 'daily');
  await page.goto('/history');
  await page.getByRole('navigation', { name: 'Over time' }).getByRole('link', { name: 'Otter Pool' }).click();
  await page.getByText('The figures').waitFor();
  await shoot(page, 'history');
});

test('a cut sheet on the scanner', async ({ page }) => {
  test.setTimeout(120_000);
  await startCheck(page, 'Osier', 'Full check');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: 'Put the sheet on the scanner' }).click();
  for (const [turn, count] of [
    ['0', 1],
    ['90', 2],
  ] as const) {
    await page.getByLabel('Sheet turned by').selectOption(turn);
    await page.getByRole('button', { name: 'Scan it' }).click();
    await expect(page.getByText(/discs measured/)).toHaveCount(count, { timeout: 60_000 });
  }
  await page.getByRole('button', { name: 'Spot 4: good' }).click();
  await shoot(page, 'scan');
});

test('a shop of one\u2019s own: the questions, what stands in it', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('link', { name: 'Shop', exact: true }).click();
  await page.waitForURL(/shop/);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await shoot(page, 'shop');
  await openDemo(page);
  await page.getByRole('link', { name: 'Start my own shop' }).click();
  await page.getByLabel('Name of the shop').fill('Kingfisher signs');
  await page.getByLabel('Your name').fill('Ragna');
  await page.getByRole('button', { name: 'Make the shop' }).click();
  await page.waitForURL(/shop\/new/);
  await page.getByText('Sheets, printer and cutter apart').click();
  await page.getByText('Pictures only').click();
  await shoot(page, 'four-questions');
});

test('a job laid out, and one that waits', async ({ page }) => {
  await openDemo(page);
  await page.goto('/jobs');
  await page.getByRole('link', { name: /Osier bed discs/ }).click();
  await page.getByText(/hides the error|will show the error|Nothing is confirmed/).waitFor();
  await shoot(page, 'job-layout');
  await page.goto('/jobs');
  await page.getByRole('link', { name: /Strip 14/ }).click();
  await page.getByRole('img', { name: /The page/ }).waitFor();
  await shoot(page, 'job-cut');
});

const DISCS = `<svg xmlns="http://www.w3.org/2000/svg" width="210mm" height="297mm" viewBox="0 0 210 297">
<g id="Marks"><rect x="16" y="16" width="10" height="10"/><rect x="184" y="16" width="10" height="10"/><rect x="16" y="271" width="10" height="10"/><rect x="184" y="271" width="10" height="10"/></g>
<g id="Rings" fill="none" stroke="#1d4f7c" stroke-width="4"><circle cx="70" cy="90" r="26"/><circle cx="140" cy="90" r="26"/><circle cx="70" cy="170" r="26"/><circle cx="140" cy="170" r="26"/></g>
<g id="Knife" fill="none" stroke="#ff0000"><circle cx="70" cy="90" r="30"/><circle cx="140" cy="90" r="30"/><circle cx="70" cy="170" r="30"/><circle cx="140" cy="170" r="30"/></g>
</svg>`;

test('a cut file corrected, and print against page', async ({ page }) => {
  await openSetup(page, 'Low Weir');
  const setup = page.url();
  await page.goto(`${setup}/cut-file`);
  await page
    .getByLabel(/SVG, DXF or HPGL/)
    .setInputFiles({ name: 'waymarkers.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(DISCS) });
  await page.getByRole('button', { name: 'by layer' }).click();
  await page.getByLabel('By figures typed here').check();
  await page.getByLabel('Across').fill('0.4');
  await page.getByLabel('Turned, counter-clockwise').fill('0.2');
  await shoot(page, 'cut-file');
  await page.goto(`${setup}/measure`);
  for (const [label, value] of [
    ['left margin, at the top', '18.5'],
    ['left margin, at the bottom', '19.5'],
    ['bottom margin, on the left', '29'],
    ['bottom margin, on the right', '28.5'],
  ] as const)
    await page.getByLabel(label).fill(value);
  await shoot(page, 'measure');
});

test('a roll: its drift, sections', async ({ page }) => {
  test.setTimeout(120_000);
  await openSetup(page, 'Towpath');
  const rolls = `${page.url()}/rolls`;
  await page.goto(rolls);
  await page.getByLabel('Stations', { exact: true }).fill('40');
  await page.getByRole('button', { name: 'Make the strip' }).click();
  await page.getByRole('link', { name: 'It is cut: read it' }).click();
  await page.getByRole('button', { name: 'Let the stand-in read what is left' }).click();
  await expect(page.getByRole('heading', { name: '160 of 160' })).toBeVisible();
  await page.getByRole('link', { name: 'Drift', exact: true }).click();
  await page.getByRole('heading', { name: 'What it is made of' }).waitFor();
  await shoot(page, 'roll-drift');
  await page.getByRole('link', { name: 'Sections' }).click();
  await page.getByLabel('Piece, across').fill('66');
  await page.getByLabel('Piece, along').fill('183.4');
  await page.getByRole('button', { name: 'Work out the sections' }).click();
  await page.getByRole('heading', { name: 'What each way costs' }).waitFor();
  await shoot(page, 'roll-sections');
});
