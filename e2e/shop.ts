import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { combStrokes, readCombPicture, readWedgePicture } from '@/core/simulate/read-picture';
import { combAnswers, nearestAnswer } from '@/core/target/comb';
import type { CheckKind } from '@/core/target/cells';
import { defineSheet, type SetNo } from '@/core/target/sheet-definition';
import { blockNamed } from '@/core/target/block';
import { LIFT_OFF_DISC_MM, LIFT_OFF_RING_OUTER_MM } from '@/core/target/lift-off';
import { figureToSheet } from '@/core/target/wedge';

interface Picture {
  readonly cuts: string;
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Cut lines of the picture that the page itself shows, as points. */
function outlines(picture: Picture): Place[][] {
  return picture.cuts
    .split('M')
    .filter(Boolean)
    .map((part) =>
      part.split('L').map((pair) => {
        const [x = NaN, y = NaN] = pair.split(' ').map(Number);
        return { x, y };
      }),
    );
}

const middle = (points: readonly Place[]): Place => ({
  x: points.slice(0, 4).reduce((sum, p) => sum + p.x / 4, 0),
  y: points.slice(0, 4).reduce((sum, p) => sum + p.y / 4, 0),
});

export interface Look {
  readonly spotNo: number;
  readonly axis: 'across' | 'along';
  readonly value: number;
}

/** What an operator sees once the cut is made: looked for again until the machine has finished. */
async function onceCut<T>(look: () => Promise<T>): Promise<T> {
  let seen: T | undefined;
  await expect(async () => {
    seen = await look();
  }).toPass({ timeout: 30_000 });
  return seen as T;
}

/** Cut lines of a sheet as the page's own picture of the table shows them. */
async function cutsOnTable(page: Page, sheetNo: number): Promise<Place[][]> {
  const id = /calibrations\/([^/]+)/.exec(page.url())?.[1] ?? '';
  const response = await page.request.get(`/calibrations/${id}/picture?sheet=${sheetNo}`);
  expect(response.ok()).toBe(true);
  return outlines((await response.json()) as Picture);
}

export interface Rims {
  readonly left: number;
  readonly right: number;
  readonly towards: number;
  readonly away: number;
}

/** Measures the clear rim of every disc on the table with a rule that shows 0.05 mm, arrow up. */
export const measureRims = (page: Page, sheetNo: number, block: 'A4' | 'Letter'): Promise<Map<number, Rims>> =>
  onceCut(() => rimsNow(page, sheetNo, block));

/** The same discs turned over, numbers upright: how their edges stand about the print of that face. */
export async function measureBackRims(page: Page, sheetNo: number): Promise<Map<number, Rims>> {
  const id = /calibrations\/([^/]+)/.exec(page.url())?.[1] ?? '';
  const response = await page.request.get(`/calibrations/${id}/picture?sheet=${sheetNo}&face=back`);
  const picture = (await response.json()) as Picture & { readonly fills: string };
  const rings = outlines(picture).filter((c) => c.length > 40);
  const prints = outlines({ cuts: picture.fills.replaceAll('Z', '') }).filter((c) => c.length > 60);
  const discs = defineSheet({ block: blockNamed('A4'), checkKind: 'quick', style: 'lift-off', sets: 1 }).liftOffs;
  return new Map(
    discs.map(({ spotNo, centre }) => {
      const near = (c: readonly Place[]) => c.every((p) => Math.hypot(p.x - centre.x, p.y - centre.y) < 15);
      const [ring, print] = [rings.find(near), prints.find(near)];
      if (!ring || !print) throw new Error(`disc ${spotNo} has no back`);
      const edge = (side: (p: Place) => number): number =>
        Math.round(
          (Math.max(...ring.map(side)) - Math.max(...print.map(side)) - LIFT_OFF_RING_OUTER_MM + LIFT_OFF_DISC_MM) * 20,
        ) / 20;
      // Turned over, what was left is right.
      return [
        spotNo,
        { left: edge((p) => p.x), right: edge((p) => -p.x), towards: edge((p) => -p.y), away: edge((p) => p.y) },
      ];
    }),
  );
}

async function rimsNow(page: Page, sheetNo: number, block: 'A4' | 'Letter'): Promise<Map<number, Rims>> {
  const rings = (await cutsOnTable(page, sheetNo)).filter((c) => c.length > 40);
  const seen = (mm: number): number => Math.round(mm * 20) / 20;
  const discs = defineSheet({ block: blockNamed(block), checkKind: 'quick', style: 'lift-off', sets: 1 }).liftOffs;
  return new Map(
    discs.map(({ spotNo, centre }) => {
      const ring = rings.find((c) => c.every((p) => Math.hypot(p.x - centre.x, p.y - centre.y) < 15));
      if (!ring) throw new Error(`no cut round disc ${spotNo}`);
      const side = (values: readonly number[]) => seen(Math.max(...values) - LIFT_OFF_RING_OUTER_MM);
      return [
        spotNo,
        {
          left: side(ring.map((p) => centre.x - p.x)),
          right: side(ring.map((p) => p.x - centre.x)),
          towards: side(ring.map((p) => centre.y - p.y)),
          away: side(ring.map((p) => p.y - centre.y)),
        },
      ];
    }),
  );
}

/** Enters measured rims or walls, disc by disc as the station asks for them. */
export async function enterRims(
  page: Page,
  rims: ReadonlyMap<number, Rims>,
  edge: 'Rim' | 'Wall' = 'Rim',
): Promise<void> {
  for (let read = 0; read < rims.size; read++) {
    const heading = (await page.getByRole('heading', { name: /^Spot \d+( \(|:)/ }).textContent()) ?? '';
    const found = rims.get(Number(/^Spot (\d+)/.exec(heading)?.[1]));
    if (!found) throw new Error(`no rims for "${heading}"`);
    await page.getByText(`Measure the ${edge.toLowerCase()}s instead`).click();
    const fields = [
      ['on the left', found.left],
      ['on the right', found.right],
      ['towards you', found.towards],
      ['away from you', found.away],
    ] as const;
    for (const [side, mm] of fields)
      await page.getByLabel(`${edge} ${side}`, { exact: true }).fill(`${mm.toFixed(2)} mm`);
    await page.getByRole('button', { name: /It looks like this/ }).click();
    await expect(page.locator('.so-far .figures', { hasText: /\d|read/ })).toHaveCount(read + 1);
  }
}

/** Types every new value back as the page says it; with nothing to set, leaves it. */
export async function takeSettings(page: Page): Promise<void> {
  const rows = page.locator('ol.changes > li');
  const count = await rows.count();
  if (count === 0) await page.getByText('Leave it, and hide it').click();
  for (let i = 0; i < count; i++) {
    const row = rows.nth(i);
    const after =
      /(?:to|by) ([\u2212+]?[\d.]+) /.exec((await row.locator('.set-words').textContent()) ?? '')?.[1] ?? '';
    await row.getByRole('textbox').fill(after);
  }
  await page.getByRole('button', { name: /I have set them|Apply this correction/ }).click();
}

/** The sheet is cut; where it was cut before, it was loaded again in between. */
export async function cutDone(page: Page): Promise<void> {
  const done = page.getByRole('button', { name: 'Cut done' });
  await expect(done).toBeVisible();
  const reloaded = page.getByRole('radio', { name: /Yes: unloaded, loaded again/ });
  if ((await reloaded.count()) > 0) await reloaded.check();
  await done.click();
}

/** From the print page: the sheet is printed right and cut, and the cut page asks for the second cut with the value changed. */
export async function printedAndCutOnce(page: Page): Promise<void> {
  await page.waitForURL(/print/);
  await page.getByRole('button', { name: 'Yes, it is right' }).click();
  await page.waitForURL(/cut/);
  await cutDone(page);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Leave the sheet loaded');
}

/** Reads each wedge of a set off the stand-ins' picture, rounded to the entered step. */
export const readPicture = (page: Page, sheet: SheetOnTable): Promise<Look[]> => onceCut(() => looksNow(page, sheet));

interface SheetOnTable {
  readonly no: number;
  readonly setNo: SetNo;
  readonly block: 'A4' | 'Letter';
  readonly kind: CheckKind;
  readonly sets?: 1 | 2;
}

/** Finds the tick in line on every comb of the stand-ins' picture, as one of the comb's own answers. */
export const readCombsOnTable = (page: Page, sheetNo: number): Promise<Look[]> =>
  onceCut(async () => {
    const cuts = await cutsOnTable(page, sheetNo);
    const { combs } = defineSheet({ block: blockNamed('A4'), checkKind: 'quick', style: 'comb' });
    return combs.map((comb) => {
      const own = combStrokes(comb, cuts);
      const seen = readCombPicture(comb, own);
      if (seen === null) throw new Error(`comb ${comb.spotNo} ${comb.axis} shows ${own.length} ticks`);
      const value = nearestAnswer(combAnswers(comb), seen).readingMm;
      return { spotNo: comb.spotNo, axis: comb.axis, value };
    });
  });

/** Walls of ink round the hole of every disc of a set, measured to 0.05 mm with the arrow up. */
export const measureWallsOnTable = (page: Page, setNo: SetNo): Promise<Map<number, Rims>> =>
  onceCut(async () => {
    const holes = (await cutsOnTable(page, 1)).filter((c) => c.length > 40);
    const { discs } = defineSheet({ block: blockNamed('A4'), checkKind: 'quick' });
    return new Map(
      discs
        .filter((d) => d.setNo === setNo)
        .map(({ spotNo, centre, radiusMm }) => {
          const hole = holes.find((c) => c.every((p) => Math.hypot(p.x - centre.x, p.y - centre.y) < 6));
          if (!hole) throw new Error(`no hole in disc ${spotNo}`);
          const wall = (out: (p: Place) => number) =>
            Math.round((radiusMm - Math.max(...hole.map((p) => out({ x: p.x - centre.x, y: p.y - centre.y })))) * 20) /
            20;
          return [
            spotNo,
            { left: wall((p) => -p.x), right: wall((p) => p.x), towards: wall((p) => -p.y), away: wall((p) => p.y) },
          ];
        }),
    );
  });

async function looksNow(page: Page, sheet: SheetOnTable): Promise<Look[]> {
  const cuts = (await cutsOnTable(page, sheet.no)).filter((c) => c.length === 5);
  return defineSheet({ block: blockNamed(sheet.block), checkKind: sheet.kind, sets: sheet.sets ?? 2 })
    .wedges.filter((w) => w.setNo === sheet.setNo)
    .map((w) => {
      const wanted = figureToSheet(w, { u: w.halfLengthMm, v: 0 });
      const near = cuts
        .map((c) => ({ c, gap: Math.hypot(middle(c).x - wanted.x, middle(c).y - wanted.y) }))
        .sort((a, b) => a.gap - b.gap)[0];
      const seen = near ? readWedgePicture(w, near.c) : null;
      if (seen === null) throw new Error(`spot ${w.spotNo} ${w.axis} shows no strip`);
      return { spotNo: w.spotNo, axis: w.axis, value: Math.round(seen * 20) / 20 };
    });
}

/** Enters readings in the order in which the station asks for them. */
export async function enterReadings(page: Page, looks: readonly Look[]): Promise<void> {
  for (let read = 0; read < looks.length; read++) {
    const asked = page.getByRole('heading', { name: /^Spot \d+, (across|along)/ });
    const heading = await asked.textContent();
    const match = /^Spot (\d+), (across|along)/.exec(heading ?? '');
    const look = looks.find((l) => l.spotNo === Number(match?.[1]) && l.axis === match?.[2]);
    if (!look) throw new Error(`no look for "${heading ?? ''}"`);
    const input = page.getByLabel(/^The (tips meet|ticks run into one line) at/);
    await input.fill(`${look.value.toFixed(2)} mm`);
    const kept = page.waitForResponse((r) => r.request().method() === 'POST');
    await input.press('Enter');
    await kept;
    // An answer to something else may come first on a busy machine: the station itself must have gone on.
    await expect(asked.filter({ hasText: heading ?? '' })).toHaveCount(0);
  }
}

/** The demo's bench, whatever shop this browser was in. */
export async function openDemo(page: Page): Promise<void> {
  await page.goto('/');
  const picker = page.getByLabel('Shop', { exact: true });
  const asked = page.getByRole('button', { name: 'River and trail workshop (demo)' });
  // A choice made before the page is awake is lost: it is made again until it took.
  await expect(async () => {
    if ((await asked.count()) > 0) await asked.click();
    else if ((await picker.count()) > 0) await picker.selectOption({ label: 'River and trail workshop (demo)' });
    await expect(page.getByRole('link', { name: 'Start my own shop' })).toBeVisible({ timeout: 2000 });
  }).toPass({ timeout: 20_000 });
}

/** The page of one printer + cutter of the demo, also when a calibration of it is still open. */
export async function openSetup(page: Page, setup: string): Promise<void> {
  await openDemo(page);
  await page.goto('/shop');
  await page.getByRole('link', { name: setup, exact: true }).click();
  await page.waitForURL(/setups/);
}

/** From the bench to the chosen check's print page. */
export async function startCheck(
  page: Page,
  setup: string,
  kind: 'Quick check' | 'Full check' = 'Quick check',
): Promise<void> {
  await openSetup(page, setup);
  await page.getByText(kind, { exact: true }).click();
  await page.getByRole('button', { name: 'Make the check sheet' }).click();
  await page.waitForURL(/print/);
}

/** Axe finds nothing serious on the page as it stands; of certain rules alone where they are named. */
export async function expectAccessible(page: Page, rules?: readonly string[]): Promise<void> {
  const axe = new AxeBuilder({ page });
  const found = await (rules ? axe.withRules([...rules]) : axe).analyze();
  const serious = found.violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(serious.map((v) => `${page.url()}: ${v.id} ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)).toEqual(
    [],
  );
}

/** What another theme can change: colours alone. */
const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

/** Every screen in both themes, and none of them scrolling sideways on a phone. The theme is one attribute of the page. */
export async function expectScreensInOrder(page: Page, screens: readonly string[]): Promise<void> {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const desk = page.viewportSize() ?? { width: 1280, height: 800 };
  for (const screen of screens) {
    await page.setViewportSize(desk);
    await page.goto(screen);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await expectAccessible(page);
    await page.evaluate(() => (document.documentElement.dataset.bsTheme = 'dark'));
    await expectAccessible(page, COLOUR_RULES);
    await page.setViewportSize({ width: 390, height: 844 });
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect([screen, wide <= 1]).toEqual([screen, true]);
  }
}
