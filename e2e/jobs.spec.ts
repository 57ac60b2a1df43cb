import { createHash } from 'node:crypto';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, expectScreensInOrder, openDemo } from './shop';

const drawing = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60">${inside}</svg>`;
const RING = '<circle cx="30" cy="30" r="27" fill="none" stroke="#ff0000" stroke-width="0.1"/>';
const DISC = drawing(`<circle cx="30" cy="30" r="25" fill="#0b6b62"/>${RING}`);
const file = (name: string, text: string) => ({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) });

async function begin(page: Page, name: string, setup: string): Promise<void> {
  await openDemo(page);
  await page.goto('/jobs');
  await page.getByLabel('What it is called').fill(name);
  await page.getByLabel('Printer + cutter').selectOption({ label: setup });
  await page.getByRole('button', { name: 'Lay it out' }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}/);
}

/** Places a drawing; its red lines are cut. */
async function placeDrawing(page: Page, text: string): Promise<void> {
  await page.getByRole('button', { name: 'Add what is made' }).click();
  await page.getByLabel(/Its art/).setInputFiles(file('disc.svg', text));
  await page.getByLabel(/#ff0000 \d/).check();
}

const headline = (page: Page) => page.getByRole('heading', { level: 1 });
const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

async function tellPrinted(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'It is printed' }).click();
  await expect(headline(page)).toContainText('printed');
}

/** A test cut in the spare that came out clean, written down on the way. */
async function cutClean(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Write a test cut down' }).click();
  await page.getByRole('button', { name: /^Lifts clean/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('cuts clean');
  await page.getByRole('link', { name: 'Back to the job' }).click();
  await expect(page.getByText('Nothing that is told here changed since it was locked.')).toBeVisible();
}

test('from art to result: laid out, locked, printed, cut, told', async ({ page }) => {
  await begin(page, 'Weir path discs', 'Low Weir');
  await expect(headline(page)).toHaveText('What is to be made?');
  await placeDrawing(page, DISC);
  await expect(headline(page)).toHaveText('12 on each sheet: one sheet makes 12, 2 over');
  await expect(page.getByLabel('Width of the art')).toHaveValue('50.00');
  await expect(page.getByText(/2\.00 mm border hides the error|2\.00 mm border will show/)).toBeVisible();
  await expect(page.getByText('Nothing to put right was found.')).toBeVisible();
  await expectAccessible(page);
  const id = /jobs\/([^/?]+)/.exec(page.url())?.[1] ?? '';
  // From a layout that can still change nothing is given out.
  expect((await page.request.get(`/jobs/${id}/files/print-pdf`)).status()).toBe(404);
  await page.getByRole('button', { name: 'Lock for printing' }).click();
  await expect(headline(page)).toHaveText('Print Weir path discs');
  const link = page.getByRole('link', { name: /Print file \(PDF\)/ });
  const [one, two] = [
    await page.request.get((await link.getAttribute('href')) ?? ''),
    await page.request.get((await link.getAttribute('href')) ?? ''),
  ];
  expect(hashOf(await one.body())).toBe(hashOf(await two.body()));
  await expect(page.getByText(hashOf(await one.body()).slice(0, 16))).toBeVisible();
  expect(one.headers()['content-disposition']).toContain('attachment');
  await tellPrinted(page);
  await expect(page.getByRole('checkbox', { name: /make a test cut in the spare first/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Give out the cut file' })).toBeDisabled();
  await cutClean(page);
  await page.getByRole('button', { name: 'Give out the cut file' }).click();
  const cut = page.getByRole('link', { name: /cut-turned-0\.hpgl/ });
  await expect(cut).toBeVisible();
  const text = (await (await page.request.get((await cut.getAttribute('href')) ?? '')).body()).toString();
  expect(text.match(/PD/g)).toHaveLength(12);
  await page.getByLabel('Good').fill('11');
  await page.getByLabel('Spoiled', { exact: true }).fill('1');
  await page.getByLabel('What the spoiled ones cost').fill('1.20');
  await page.getByRole('button', { name: 'Keep the result' }).click();
  await expect(headline(page)).toHaveText('Weir path discs: 11 good, 1 spoiled');
  await page.goto('/jobs');
  await expect(page.getByText(/11 good, 1 spoiled, cost 1\.20/).first()).toBeVisible();
});

test('what is wrong is numbered on the page, and what stops it keeps it from being locked', async ({ page }) => {
  await begin(page, 'Faulty', 'Low Weir');
  const original = '<circle cx="30" cy="30" r="25" fill="none" stroke="#ff0000" stroke-width="0.1"/>';
  await placeDrawing(
    page,
    drawing(
      `<circle cx="30" cy="30" r="25" fill="#0b6b62"/>${RING}${RING}${original}<text stroke="#ff0000" x="9" y="9">R</text>`,
    ),
  );
  const list = page.getByRole('region', { name: 'To look at' });
  await expect(list).toContainText('Text is set to cut');
  await expect(list).toContainText('lie on another one: both would be cut');
  await expect(list).toContainText('an original left under its offset?');
  await expect(page.getByText('One thing above stops it.')).toBeVisible();
  await expect(page.getByRole('button', { name: /lock for printing/i })).toBeDisabled();
  await expectAccessible(page);
  await page.getByLabel(/another in its place/).setInputFiles(file('mended.svg', DISC));
  await page.getByLabel(/#ff0000 \d/).check();
  await expect(list).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Lock for printing' })).toBeEnabled();
  // Too near to the edge for this printer: the marks are cut off.
  await page.getByLabel('Marks from the edge').fill('4');
  await expect(list).toContainText('they would be cut off');
});

test('the inset is moved in the picture, by keys and by hand, and the usable area follows', async ({ page }) => {
  await begin(page, 'Inset', 'Low Weir');
  await placeDrawing(page, DISC);
  const grip = page.getByRole('slider', { name: 'Inset of the marks' });
  const usable = page.getByTestId('usable');
  await expect(headline(page)).toContainText('12 on each sheet');
  const before = await usable.innerText();
  await grip.focus();
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowRight');
  await expect(grip).toHaveAttribute('aria-valuenow', '9.9');
  expect(await usable.innerText()).not.toBe(before);
  await expect(headline(page)).toContainText(/1[2-9] on each sheet/);
  const box = await grip.boundingBox();
  if (!box) throw new Error('the grip is on the page');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  const [area, copies] = [await usable.innerText(), await headline(page).innerText()];
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 40, box.y + box.height / 2, { steps: 8 });
  // The area follows the hand; the copies when it rests or lets go.
  await expect(usable).not.toHaveText(area);
  await page.mouse.up();
  await expect(headline(page)).not.toHaveText(copies);
  expect(Number(await grip.getAttribute('aria-valuenow'))).toBeGreaterThan(20);
  await expect(page.getByLabel('Marks from the edge')).toHaveValue(/^2\d|^3\d/);
  await page.getByText('Would a smaller inset pay?').click();
  await expect(page.getByRole('region', { name: 'Insets compared' })).toContainText('best');
});

test('lines that are scored: dotted in the picture, given out before the cut in a file of their own', async ({
  page,
}) => {
  await begin(page, 'Folded', 'Low Weir');
  await placeDrawing(
    page,
    drawing(
      `<circle cx="30" cy="30" r="25" fill="#0b6b62"/>${RING}<path d="M30 3v54" fill="none" stroke="#0000ff" stroke-width="0.1"/>`,
    ),
  );
  await page.getByLabel('#0000ff is scored, to be folded').check();
  await expect(page.getByLabel(/#0000ff \d/)).not.toBeChecked();
  await expect(page.getByText('Nothing to put right was found.')).toBeVisible();
  await expect(headline(page)).toHaveText('12 on each sheet: one sheet makes 12, 2 over');
  await page.getByRole('button', { name: 'Lock for printing' }).click();
  await tellPrinted(page);
  await cutClean(page);
  await page.getByLabel(/only what is scored/).check();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Give out the cut file' }).click();
  const scored = page.getByRole('link', { name: /score-turned-0\.hpgl/ });
  const text = (await (await page.request.get((await scored.getAttribute('href')) ?? '')).body()).toString();
  expect(text.match(/PD/g)).toHaveLength(12);
  await page.getByLabel(/only what is cut/).check();
  await page.getByRole('button', { name: 'Give out the cut file' }).click();
  await expect(page.getByRole('link', { name: /cut-only-turned-0\.hpgl/ })).toBeVisible();
});

test('what was typed while the server was away is back after a reload, and sent', async ({ page, context }) => {
  await begin(page, 'Away', 'Low Weir');
  await placeDrawing(page, DISC);
  await expect(page.getByText('Kept.')).toBeVisible();
  await context.setOffline(true);
  await page.getByLabel('Between copies').fill('7');
  await expect(page.getByText(/does not answer/)).toBeVisible();
  await context.setOffline(false);
  await page.reload();
  await expect(page.getByLabel('Between copies')).toHaveValue('7.00');
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Between copies')).toHaveValue('7.00');
});

test('a program\u2019s own layout: checked, locked by its file\u2019s fingerprint, cut only from the same file', async ({
  page,
}) => {
  await begin(page, 'Own layout', 'Osier');
  await page.getByRole('button', { name: 'My program lays it out' }).click();
  await page.getByLabel('From the page\u2019s left edge').fill('5');
  await expect(page.getByText(/Art stands outside the usable area/)).toBeVisible();
  await page.getByLabel('From the page\u2019s left edge').fill('40');
  await expect(page.getByText(/Art stands outside/)).toHaveCount(0);
  const saved = { name: 'discs.job', mimeType: 'application/octet-stream', buffer: Buffer.from('as it was printed') };
  const changed = { ...saved, buffer: Buffer.from('moved by a hair') };
  await page.getByLabel(/as your program saved it/).setInputFiles(saved);
  await expect(page.getByText(hashOf(saved.buffer).slice(0, 8))).toBeVisible();
  await page.getByRole('button', { name: /lock for printing/i }).click();
  await tellPrinted(page);
  const release = page.getByRole('button', { name: 'It may be cut' });
  await expect(release).toBeDisabled();
  await page.getByLabel(/discs\.job, as it is open/).setInputFiles(changed);
  await page.getByLabel(/nothing on the page was moved/).check();
  for (const change of await page
    .getByRole('group', { name: /Changed since/ })
    .getByRole('checkbox')
    .all())
    await change.check();
  await release.click();
  await expect(page.getByText(/something in it was changed after printing/)).toBeVisible();
  await page.getByLabel(/discs\.job, as it is open/).setInputFiles(saved);
  await expect(page.getByText(hashOf(saved.buffer).slice(0, 8))).toBeVisible();
  await release.click();
  await expect(page.getByText('Cut from the file that was printed')).toBeVisible();
});

test('a locked job is put away with a reason and brought back; a change makes a copy', async ({ page }) => {
  await begin(page, 'Put away', 'Low Weir');
  await placeDrawing(page, DISC);
  await expect(headline(page)).toContainText('12 on each sheet');
  await page.getByRole('button', { name: 'Lock for printing' }).click();
  await expect(headline(page)).toHaveText('Print Put away');
  const first = page.url();
  await page.getByText('Put it away', { exact: true }).first().click();
  await page.getByLabel('Why?').fill('the order was called off');
  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(page.getByText(/Put away: the order was called off/)).toBeVisible();
  await page.getByRole('button', { name: 'Take it out of the archive' }).click();
  await expect(headline(page)).toHaveText('Print Put away');
  await page.getByRole('button', { name: 'Make a changed copy' }).click();
  await expect(page).not.toHaveURL(first);
  await expect(headline(page)).toContainText('12 on each sheet');
});

test('axe finds nothing serious on any screen of jobs, none scrolls sideways at 390 px', async ({ page }) => {
  await openDemo(page);
  await page.goto('/jobs');
  const screens = ['/jobs'];
  for (const name of [/Strip 14/, /Mill bridge/, /Osier bed/, /Ridge path/])
    screens.push((await page.getByRole('link', { name }).first().getAttribute('href')) ?? '');
  await expectScreensInOrder(page, screens);
});
