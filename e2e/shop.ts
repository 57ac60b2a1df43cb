import { expect, type Page } from '@playwright/test';
import { readWedgePicture } from '@/core/simulate/read-picture';
import { defineSheet, type CheckKind, type SetNo } from '@/core/target/sheet-definition';
import { blockNamed } from '@/core/target/block';
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

/** Reads each wedge of a set off the stand-ins' picture, rounded to the entered step. */
export async function readPicture(
  page: Page,
  sheet: { no: number; setNo: SetNo; block: 'A4' | 'Letter'; kind: CheckKind },
): Promise<Look[]> {
  const id = /calibrations\/([^/]+)/.exec(page.url())?.[1] ?? '';
  const response = await page.request.get(`/calibrations/${id}/picture?sheet=${sheet.no}`);
  expect(response.ok()).toBe(true);
  const cuts = outlines((await response.json()) as Picture).filter((c) => c.length === 5);
  return defineSheet({ block: blockNamed(sheet.block), checkKind: sheet.kind })
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
    const heading = await page.getByRole('heading', { name: /^Spot \d+, (across|along)/ }).textContent();
    const match = /^Spot (\d+), (across|along)/.exec(heading ?? '');
    const look = looks.find((l) => l.spotNo === Number(match?.[1]) && l.axis === match?.[2]);
    if (!look) throw new Error(`no look for "${heading ?? ''}"`);
    const input = page.getByLabel('The tips meet at');
    await input.fill(`${look.value.toFixed(2)} mm`);
    const kept = page.waitForResponse((r) => r.request().method() === 'POST');
    await input.press('Enter');
    await kept;
  }
}

/** The demo's bench, whatever shop this browser was in. */
export async function openDemo(page: Page): Promise<void> {
  await page.goto('/');
  const picker = page.getByLabel('Shop', { exact: true });
  // A choice made before the page is awake is lost: it is made again until it took.
  await expect(async () => {
    if ((await picker.count()) > 0) await picker.selectOption({ label: 'River and trail workshop (demo)' });
    await expect(page.getByRole('button', { name: 'Start my own shop' })).toBeVisible({ timeout: 2000 });
  }).toPass({ timeout: 20_000 });
}

/** From the bench to the chosen check's print page. */
export async function startCheck(
  page: Page,
  setup: string,
  kind: 'Quick check' | 'Full check' = 'Quick check',
): Promise<void> {
  await openDemo(page);
  await page.getByRole('article', { name: setup }).getByRole('link').first().click();
  await page.waitForURL(/setups/);
  await page.getByText(kind, { exact: true }).click();
  await page.getByRole('button', { name: 'Make the check sheet' }).click();
  await page.waitForURL(/print/);
}
