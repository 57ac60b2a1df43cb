import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, openSetup } from './shop';

/** A sheet of waymarker discs: marks, printed rings, cut rings, each in a layer of its own. */
const DISCS = `<svg xmlns="http://www.w3.org/2000/svg" width="210mm" height="297mm" viewBox="0 0 210 297">
<g id="Marks"><rect x="16" y="16" width="10" height="10"/><rect x="184" y="16" width="10" height="10"/><rect x="16" y="271" width="10" height="10"/></g>
<g id="Rings" fill="none" stroke="#1d4f7c" stroke-width="4"><circle cx="70" cy="90" r="26"/><circle cx="140" cy="90" r="26"/></g>
<g id="Knife" fill="none" stroke="#ff0000"><circle cx="70" cy="90" r="30"/><circle cx="140" cy="90" r="30"/></g>
</svg>`;

async function choose(page: Page, name: string, content: string): Promise<void> {
  await page
    .getByLabel(/SVG, DXF or HPGL/)
    .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(content) });
}

async function makeAndTake(page: Page): Promise<{ readonly name: string; readonly text: string }> {
  await page.getByRole('button', { name: 'Make the corrected file' }).click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Take / }).click();
  const download = await waiting;
  return { name: download.suggestedFilename(), text: readFileSync(await download.path(), 'utf8') };
}

test('a cut file of the shop\u2019s own: lines chosen, error typed, only the cut moved, nothing sent anywhere', async ({
  page,
}) => {
  await openSetup(page, 'Heronry');
  await page.getByRole('link', { name: 'Correct a cut file' }).click();
  await expect(page.getByRole('heading', { name: 'Heronry: correct a cut file' })).toBeVisible();
  const sent: string[] = [];
  page.on('request', (request) => {
    if (request.method() !== 'GET') sent.push(request.url());
  });
  await choose(page, 'discs.svg', DISCS);
  await page.getByRole('button', { name: 'by layer' }).click();
  await expect(page.getByLabel('Knife is')).toHaveValue('cut');
  await expect(page.getByLabel('Marks is')).toHaveValue('marks');
  await expect(page.getByText(/Measured about the middle of the marks: 105.00 mm from the left/)).toBeVisible();
  await page.getByLabel('Across').fill('0,5');
  await page.getByLabel('Along').fill('-1/4 in');
  await expect(page.getByText(/The cut moves by up to 6\.37 mm/)).toBeVisible();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const made = await makeAndTake(page);
  expect(made.name).toBe('discs corrected.svg');
  // Half a mm to the right is taken back to the left, a quarter inch down goes up: minus 6.35 where y points down.
  expect(made.text).toBe(
    DISCS.replaceAll(/(Knife"[^>]*>)<circle/g, '$1<circle transform="matrix(1 0 0 1 -0.5 -6.35)"').replace(
      '<circle cx="140" cy="90" r="30"',
      '<circle transform="matrix(1 0 0 1 -0.5 -6.35)" cx="140" cy="90" r="30"',
    ),
  );
  expect(sent).toEqual([]);

  await test.step('a change afterwards takes the old file away', async () => {
    await page.getByLabel('Too wide').fill('0.5');
    await expect(page.getByRole('link', { name: /^Take / })).toHaveCount(0);
    await page.getByLabel('Too wide').fill('half');
    await expect(page.getByText('Type a number such as 0.25 or -0,25.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Make the corrected file' })).toBeDisabled();
  });
});

test('a DXF and a plotter file come back as what they were; a file of another kind is refused in words', async ({
  page,
}) => {
  await openSetup(page, 'Heronry');
  await page.getByRole('link', { name: 'Correct a cut file' }).click();
  await choose(page, 'discs.plt', 'IN;SP1;PU400,400;PD800,400,800,800;PU;SP2;PU40,40;PD80,40;');
  await page.getByLabel('pen 2 is').selectOption('to cut');
  await page.getByLabel('Across').fill('1');
  expect((await makeAndTake(page)).text).toBe('IN;SP1;PU400,400;PD800,400,800,800;PU;SP2;PU0,40;PD40,40;');
  await choose(
    page,
    'strip.dxf',
    '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nKnife\n62\n1\n10\n5\n20\n5\n11\n9\n21\n9\n0\nENDSEC\n0\nEOF\n',
  );
  await expect(page.getByText(/The drawing states no unit/)).toBeVisible();
  await page.getByRole('button', { name: 'drawn in inches' }).click();
  await expect(page.getByText('one unit is taken as 25.4 mm')).toBeVisible();
  await page.getByLabel('Across').fill('1 in');
  expect((await makeAndTake(page)).text).toContain('10\n4\n20\n5\n11\n8\n21\n9\n');
  await choose(page, 'poem.svg', 'By the weir the water slows');
  await expect(page.getByText(/poem.svg was not taken/)).toBeVisible();
});

test('a drawing with a script in it is only its lines: nothing runs, nothing is fetched', async ({ page }) => {
  await openSetup(page, 'Heronry');
  await page.getByRole('link', { name: 'Correct a cut file' }).click();
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  const trap = DISCS.replace('<svg ', '<svg onload="window.trapped = 1" ').replace(
    '<g id="Marks">',
    '<script>window.trapped = 2</script><image href="/trap.png"/><style>@import "/trap.css";</style><foreignObject><img src="/trap.png" onerror="window.trapped = 3"/></foreignObject><g id="Marks">',
  );
  await choose(page, '<img src=x onerror=alert(1)>.svg', trap);
  await page.getByRole('button', { name: 'by layer' }).click();
  await page.getByLabel('Across').fill('0.5');
  expect((await makeAndTake(page)).text).toContain('window.trapped = 2');
  expect(await page.evaluate(() => 'trapped' in window)).toBe(false);
  expect(asked.filter((url) => url.includes('trap'))).toEqual([]);
});
