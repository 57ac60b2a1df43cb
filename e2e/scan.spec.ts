import { expect, test, type Page } from '@playwright/test';
import sharp, { type Sharp } from 'sharp';
import { cutDone, expectAccessible, openSetup, startCheck, takeSettings } from './shop';

/** From the bench to the scanner's page of a sheet that has just been cut. */
async function toScanner(page: Page, setup: string, kind: 'Quick check' | 'Full check'): Promise<void> {
  await startCheck(page, setup, kind);
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.waitForURL(/read/);
  await page.getByRole('link', { name: 'Put the sheet on the scanner' }).click();
  await page.waitForURL(/look=scan/);
}

/** The stand-in scanner takes the sheet, turned as asked; waits until it is measured. */
async function scan(page: Page, turn: string, condition = 'clean'): Promise<void> {
  const before = await page.getByText(/(disc|ring)s measured/).count();
  await page.getByLabel('Sheet turned by').selectOption(turn);
  await page.getByLabel('Sheet', { exact: true }).selectOption(condition);
  await page.getByRole('button', { name: 'Scan it' }).click();
  await expect(page.getByText(/(disc|ring)s measured/)).toHaveCount(before + 1, { timeout: 60_000 });
}

test('a check by the scanner alone: two scans, map, settings, the confirming cut scanned as well', async ({ page }) => {
  await toScanner(page, 'Low Weir', 'Full check');
  await scan(page, '0');
  await expect(page.getByText(/300 dpi, turned by 0\u00b0: 9 of 9 discs measured/)).toBeVisible();
  await expect(page.getByText(/One scan cannot tell its lamp\u2019s shadow/)).toBeVisible();
  await scan(page, '90');
  await expect(page.getByText(/taken together they are free of it/)).toBeVisible();

  await page.getByText('How true is the print itself?').click();
  await expect(page.getByText(/so they are told apart/)).toBeVisible();
  const drawn = /drawn as ([\d.]+) mm/.exec((await page.getByText(/^drawn as/).textContent()) ?? '')?.[1] ?? '';
  await page.getByLabel('Length on the print').fill('12');
  await expect(page.getByText(/That is far from the .* drawn between these two discs/)).toBeVisible();
  await page.getByLabel('Length on the print').fill(drawn);
  await expect(page.getByText(/Across the print is (99\.9|100\.0)\d+ % of its size/)).toBeVisible();

  await page.getByRole('button', { name: 'Spot 5: good' }).click();
  await expect(page.getByRole('img', { name: /Spot 5 magnified, good: .* across, .* mm along/ })).toBeVisible();
  await page.getByLabel('Count spot 5').uncheck();
  await expect(page.getByRole('button', { name: 'Use these 8 discs' })).toBeVisible();
  await page.getByLabel('Count spot 5').check();
  await expectAccessible(page);
  await page.getByLabel(/Keep the originals too, \d+\.\d MB/).check();
  await page.getByRole('button', { name: 'Use these 9 discs' }).click();

  await page.waitForURL(/map/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Worst corner');
  const base = page.url().replace(/\/map.*/, '');
  await page.goto(`${base}/read?look=scan`);
  await expect(page.getByText(/The newest counts\. Across the print is/)).toBeVisible();
  const original = page.getByRole('link', { name: /^stand-in-scan-turned-90\.png, \d+\.\d MB$/ });
  const href = (await original.getAttribute('href')) ?? '';
  const answer = await page.request.get(href);
  expect(answer.headers()['content-disposition']).toContain('attachment');
  expect([...(await answer.body()).subarray(1, 4)]).toEqual([...Buffer.from('PNG')]);
  const text = await page.request.put(href.replace(/1$/, '0'), { data: Buffer.from('no picture') });
  expect([text.status(), await text.text()]).toEqual([422, expect.stringContaining('no PNG, JPEG or TIFF')]);
  const kept = page.getByRole('img', { name: /The sheet as .* scanned it/ });
  await expect(kept).toBeVisible();
  expect(await kept.evaluate((img: HTMLImageElement) => img.decode().then(() => img.naturalWidth))).toBeGreaterThan(
    500,
  );
  await page.goto(`${base}/settings`);
  await takeSettings(page);
  await page.waitForURL(/confirm/);
  await cutDone(page);
  await page.getByRole('link', { name: 'Put the sheet on the scanner instead' }).click();
  await page.waitForURL(/look=scan/);
  await scan(page, '0');
  await scan(page, '180');
  await page.getByRole('button', { name: 'Use these 9 discs' }).click();
  await page.waitForURL(/confirm/);
  await expect(page.getByText(/Constant error .* with 95 % confidence/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'In register' })).toBeVisible();
});

test('what is no scan of this sheet is told by name, and a worn sheet by its discs; a scan can be taken away', async ({
  page,
}) => {
  await toScanner(page, 'Towpath', 'Quick check');
  const drop = page.getByLabel('Drop the scan or photograph here, or choose it');
  await drop.setInputFiles([
    { name: 'readings.png', mimeType: 'image/png', buffer: Buffer.from('spot,across,along\n1,0.1,0.2\n') },
    {
      name: 'blank.png',
      mimeType: 'image/png',
      buffer: Buffer.from(await (await page.request.get('/icon.svg')).body()),
    },
  ]);
  await expect(page.getByText(/readings\.png.*no PNG, JPEG or TIFF/)).toBeVisible();
  await expect(page.getByText(/blank\.png.*no PNG, JPEG or TIFF/)).toBeVisible();
  // A picture of the page itself, as PNG and as JPEG by the browser's own decoder.
  await drop.setInputFiles([
    { name: 'screen.png', mimeType: 'image/png', buffer: await page.screenshot() },
    { name: 'screen.jpg', mimeType: 'image/jpeg', buffer: await page.screenshot({ type: 'jpeg' }) },
  ]);
  await expect(page.getByText(/screen\.png.*No coded disc was found/)).toBeVisible();
  await expect(page.getByText(/screen\.jpg.*No coded disc was found/)).toBeVisible();

  await scan(page, '270', 'worn');
  await expect(page.getByText(/turned by 270\u00b0: [34] of 5 discs measured/)).toBeVisible();
  const table = page.getByRole('table', { name: 'Discs of this cut' });
  await expect(table.getByText('not weeded')).toBeVisible();
  await expect(table.getByText(/Lift the round piece out, or lay white card behind/)).toBeVisible();
  await page.getByRole('button', { name: /^Take stand-in.* away$/ }).click();
  await expect(table).toHaveCount(0);
});

test('lifted discs, loose on dark card: each measured whatever way it lies, and what was not lifted is told', async ({
  page,
}) => {
  await startCheck(page, 'Stepping Stones', 'Quick check');
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: 'Put the lifted discs on the scanner instead' }).click();
  await expect(page.getByText(/ink down on the scanner\u2019s glass, not touching another/)).toBeVisible();
  await expectAccessible(page);
  await scan(page, '0', 'worn');
  await expect(page.getByText(/300 dpi, loose pieces: [34] of 5 discs measured/)).toBeVisible();
  const table = page.getByRole('table', { name: 'Discs of this cut' });
  await expect(table.getByText('not lifted')).toBeVisible();
  await page.getByRole('button', { name: /^Take stand-in.* away$/ }).click();
  await scan(page, '0');
  await expect(page.getByText(/loose pieces: 5 of 5 discs measured/)).toBeVisible();
  await expect(page.getByText(/Pieces that lie each its own way even much of it out/)).toBeVisible();
  await page.getByRole('button', { name: 'Spot 2: good' }).click();
  await expect(page.getByRole('img', { name: /Spot 2 magnified, good: .* across, .* along/ })).toBeVisible();
  await expectAccessible(page);
  await scan(page, '90');
  await expect(page.getByText(/taken together they are free of the lamp\u2019s shadow/)).toBeVisible();
  await page.getByRole('button', { name: 'Use these 5 discs' }).click();
  await page.waitForURL(/map/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Worst corner');
});

test('slits rubbed in: a dark circle in every ring, one scan is enough', async ({ page }) => {
  await openSetup(page, 'Towpath');
  await page.getByLabel('How will the cut be seen?').selectOption({ label: 'Knife, slits rubbed in' });
  await page.getByRole('button', { name: 'Make the check sheet' }).click();
  await page.waitForURL(/print/);
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await page.getByRole('link', { name: 'Put the sheet on the scanner' }).click();
  await expect(page.getByText(/rub a soft pencil or a marker over slits/)).toBeVisible();
  await scan(page, '180');
  await expect(page.getByText(/turned by 180\u00b0: 5 of 5 rings measured/)).toBeVisible();
  await expect(page.getByText(/A line on the surface casts no shadow/)).toBeVisible();
  await page.getByRole('button', { name: 'Spot 1: good' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Use these 5 rings' }).click();
  await page.waitForURL(/map/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Worst corner');
});

test('files made to keep a reader busy are answered by name, and the page stays at hand', async ({ page }) => {
  await toScanner(page, 'Towpath', 'Quick check');
  const empty = (width: number, height: number): Sharp =>
    sharp({ create: { width, height, channels: 3, background: '#fff' }, limitInputPixels: false });
  const whole = await empty(600, 600).png().toBuffer();
  const tooLarge = Buffer.from(whole);
  tooLarge.writeUInt32BE(60_000, 16);
  tooLarge.writeUInt32BE(60_000, 20);
  const files: readonly [name: string, content: Buffer, answer: RegExp][] = [
    ['cut-short.png', whole.subarray(0, whole.length - 30), /damaged or was not copied whole/],
    ['too-large.png', tooLarge, /60000 x 60000 pixels: at most 400 million/],
    ['inks.jpg', await empty(600, 600).toColourspace('cmyk').jpeg().toBuffer(), /printing inks/],
    ['cut-short.jpg', (await empty(600, 600).jpeg().toBuffer()).subarray(0, 300), /damaged/],
    ['one.png', await empty(1, 1).png().toBuffer(), /No coded disc was found/],
    [
      'four-hundred-million.png',
      await empty(20_000, 20_000).toColourspace('b-w').png({ compressionLevel: 1 }).toBuffer(),
      /No coded disc was found/,
    ],
  ];
  const drop = page.getByLabel('Drop the scan or photograph here, or choose it');
  for (const [name, buffer, answer] of files) {
    await drop.setInputFiles([{ name, mimeType: 'image/png', buffer }]);
    await expect(page.getByText(new RegExp(`${name.replace('.', '\\.')}.*${answer.source}`))).toBeVisible({
      timeout: 20_000,
    });
  }
  await expect(page.getByRole('button', { name: 'Scan it' })).toBeEnabled();
});

test('a photograph from the hand: measured, called approximate', async ({ page }) => {
  await toScanner(page, 'Low Weir', 'Quick check');
  await page.getByLabel('Taken by').selectOption('camera');
  await scan(page, '0');
  await expect(
    page.getByText(/photograph, 1[12]\u00b0 from straight above: 5 of 5 discs measured, approximately/),
  ).toBeVisible();
  await expect(page.getByText(/Measured from a photograph: approximate.*second photograph/)).toBeVisible();
});

const codeOnPage = (page: Page): Promise<string> => page.locator('.crumbs .figures').innerText();

test('another check\u2019s sheet on the scanner is not taken for this one; a JPEG of this one is', async ({ page }) => {
  await toScanner(page, 'Low Weir', 'Quick check');
  const href = (id: string): string => `/calibrations/${id}/scan-picture?sheet=1&turn=0&dpi=300&condition=clean`;
  const idOf = (): string => /calibrations\/([^/]+)/.exec(page.url())?.[1] ?? '';
  const otherId = idOf();
  const other = await (await page.request.get(href(otherId))).body();
  const otherCode = await codeOnPage(page);
  await toScanner(page, 'Low Weir', 'Quick check');
  const own = await page.evaluate(async (from) => {
    const bitmap = await createImageBitmap(await (await fetch(from)).blob());
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
    const jpeg = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.6 });
    return [...new Uint8Array(await jpeg.arrayBuffer())];
  }, href(idOf()));
  const drop = page.getByLabel('Drop the scan or photograph here, or choose it');
  await drop.setInputFiles([
    { name: 'other.png', mimeType: 'image/png', buffer: other },
    { name: 'own.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(own) },
  ]);
  await expect(page.getByText(`This is sheet ${otherCode}. Nothing was measured.`)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/own\.jpg.*300 dpi, turned by 0\u00b0: 5 of 5 discs measured/)).toBeVisible({
    timeout: 30_000,
  });
});
