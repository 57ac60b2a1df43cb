/** Jobs of the demo shop: one being laid out, two that wait, one that was cut. Made by the application's own services. */
import { randomUUID } from 'node:crypto';
import { computeHere } from '@/compute/compute-here';
import type { TellResultInput } from '@/contracts/jobs';
import type { JobDraft, JobItem } from '@/core/layout/job-draft';
import type { TestCutOutcome } from '@/core/shop/test-cut';
import type { Database } from '@/db/client';
import { findJob } from '@/db/queries/job';
import { setClock } from '@/server/clock';
import type { Actor } from '@/server/services/actor';
import { cutChanges, releaseCut, tellPrinted, tellResult } from '@/server/services/job-cut';
import { lockJob } from '@/server/services/job-lock';
import { stampFor } from '@/server/services/job-stamp';
import { keepArt, keepDraft, startJob } from '@/server/services/jobs';
import { keepTestCut } from '@/server/services/test-cuts';

const HOUR_MS = 3_600_000;
const DAY_HOURS = 24;

/** A waymarker: ring 1.5 mm from the edge, an arrow, cut 1.5 mm inside the ink. */
const DISC = `<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="70mm" viewBox="0 0 70 70">
<g id="art"><circle cx="35" cy="35" r="31.5" fill="#0b6b62"/><circle cx="35" cy="35" r="28.1" fill="none" stroke="#fffefb" stroke-width="0.8"/>
<path d="M35 14l14 18h-8v22h-12v-22h-8z" fill="#fffefb"/></g>
<g id="cut"><circle cx="35" cy="35" r="30" fill="none" stroke="#c4162a" stroke-width="0.1"/></g></svg>`;

/** One gauge strip: graduations every 10 mm, its edge stepped on every fifth. */
function gaugeStrip(): string {
  const ticks = Array.from({ length: 29 }, (_, i) => {
    const y = 10 * (i + 1);
    const length = i % 5 === 4 ? 34 : 20;
    return `<rect x="4" y="${y - 0.6}" width="${length}" height="1.2"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="300mm" viewBox="0 0 80 300">
<g id="art"><rect x="0" y="0" width="80" height="300" fill="#f2c14e"/><g fill="#14233c">${ticks.join('')}</g></g>
<g id="cut"><path d="M2 2h76v96h-6v100h6v100h-76z" fill="none" stroke="#c4162a" stroke-width="0.1"/></g></svg>`;
}

interface DemoJob {
  readonly name: string;
  readonly setupId: string;
  readonly materialId: string;
  readonly item: Omit<JobItem, 'id' | 'art'> & { readonly file: string; readonly svg: string };
  readonly draft: Partial<JobDraft>;
  /** Hours ago that it was locked; absent: it is still being laid out. */
  readonly lockedHoursAgo?: number;
  readonly printedHoursAgo?: number;
  readonly result?: Omit<TellResultInput, 'id' | 'jobId'>;
}

async function taken<T>(
  done: Promise<
    { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: { readonly message: string } }
  >,
): Promise<T> {
  const answer = await done;
  if (!answer.ok) throw new Error(answer.error.message);
  return answer.value;
}

const hoursAgo = (hours: number): void => {
  setClock(() => new Date(Date.now() - hours * HOUR_MS));
};

async function makeJob(db: Database, actor: Actor, order: DemoJob): Promise<void> {
  const { name, setupId, materialId, item, draft, lockedHoursAgo = 2, printedHoursAgo, result } = order;
  hoursAgo(lockedHoursAgo + 1);
  const jobId = await taken(startJob(db, actor, { id: randomUUID(), setupId, materialId, name }));
  const file = { name: item.file, content: Buffer.from(item.svg) };
  const { id: fileId } = await taken(keepArt(db, { jobId, id: randomUUID() }, file));
  const { file: fileName, name: itemName, quantity, widthMm, lengthMm, mayTurn } = item;
  const art = {
    kind: 'drawing',
    fileId,
    fileName,
    cutBy: 'layer',
    cutNames: ['cut'],
    cutFrom: 'lines',
    keepsHoles: true,
  } as const;
  const first = (await findJob(db, jobId))?.job.draft as JobDraft;
  const whole: JobDraft = {
    ...first,
    ...draft,
    items: [{ id: randomUUID(), name: itemName, quantity, widthMm, lengthMm, mayTurn, art }],
  };
  const version = await taken(keepDraft(db, { jobId, version: 1, name, materialId, draft: whole }));
  if (order.lockedHoursAgo === undefined) return;
  hoursAgo(lockedHoursAgo);
  await taken(lockJob(db, actor, { id: randomUUID(), jobId, version, ownFile: null }, computeHere));
  if (printedHoursAgo === undefined) return;
  hoursAgo(printedHoursAgo);
  await taken(tellPrinted(db, actor, { id: randomUUID(), jobId, sheets: 1, minutesAgo: 0 }));
  if (!result) return;
  hoursAgo(printedHoursAgo - 1);
  const stamp = stampFor('UTC');
  const seenChanges = [...(await cutChanges(db, jobId, { stamp, stack: '' }))];
  const input = {
    id: randomUUID(),
    jobId,
    seenChanges,
    ownFile: null,
    turnDeg: null,
    isUnmoved: false,
    lines: 'all' as const,
    scoreTool: 2,
  };
  await taken(releaseCut(db, actor, { input, stamp }));
  await taken(tellResult(db, actor, { id: randomUUID(), jobId, ...result }));
}

export interface DemoPlaces {
  readonly lowWeir: string;
  readonly towpath: string;
  readonly sluice: string;
  readonly stripFilm: string;
  readonly vinyl: string;
}

interface DemoTestCut {
  readonly setup: 'lowWeir' | 'towpath';
  readonly material: 'stripFilm' | 'vinyl';
  readonly daysAgo: number;
  readonly force: number;
  readonly outcome: TestCutOutcome;
  readonly stack?: string;
}

/** Test cuts in the spare: how the shop found the force of each material. */
const DEMO_TEST_CUTS: readonly DemoTestCut[] = [
  { setup: 'lowWeir', material: 'vinyl', daysAgo: 12, force: 60, outcome: 'not_through' },
  { setup: 'lowWeir', material: 'vinyl', daysAgo: 12, force: 75, outcome: 'clean' },
  { setup: 'towpath', material: 'stripFilm', daysAgo: 8, force: 80, outcome: 'not_through' },
  { setup: 'towpath', material: 'stripFilm', daysAgo: 8, force: 120, outcome: 'liner_cut' },
  { setup: 'towpath', material: 'stripFilm', daysAgo: 8, force: 100, outcome: 'clean' },
  { setup: 'towpath', material: 'stripFilm', daysAgo: 7, force: 120, outcome: 'not_through', stack: 'laminated' },
];

/** All jobs of the demo, oldest first. */
export async function seedJobs(db: Database, actor: Actor, at: DemoPlaces): Promise<void> {
  const disc = { name: 'Waymarker disc', file: 'waymarker.svg', svg: DISC, widthMm: 63, lengthMm: 63, mayTurn: false };
  const strip = {
    name: 'Gauge strip',
    file: 'gauge-strip.svg',
    svg: gaugeStrip(),
    widthMm: 80,
    lengthMm: 300,
    mayTurn: false,
  };
  const roll = {
    form: 'roll' as const,
    page: { name: 'Gauge strip film', widthMm: 610, lengthMm: 2000 },
    spareFrontMm: 60,
    spareRearMm: 120,
  };
  const jobs: readonly DemoJob[] = [
    {
      ...{
        name: 'Ridge path discs',
        setupId: at.lowWeir,
        materialId: at.vinyl,
        item: { ...disc, quantity: 6 },
        draft: {},
      },
      ...{ lockedHoursAgo: 5 * DAY_HOURS, printedHoursAgo: 5 * DAY_HOURS - 2 },
      result: {
        ...{ good: 5, spoiled: 1, spoiledCost: 1.4, note: 'one torn while weeding' },
        marks: { tries: 2, wereRead: true, light: 'sun' },
      },
    },
    {
      ...{
        name: 'Strip 14',
        setupId: at.towpath,
        materialId: at.stripFilm,
        item: { ...strip, quantity: 12 },
        draft: roll,
      },
      ...{ lockedHoursAgo: 3 * DAY_HOURS, printedHoursAgo: 3 * DAY_HOURS - 1 },
    },
    {
      ...{
        name: 'Mill bridge discs',
        setupId: at.lowWeir,
        materialId: at.vinyl,
        item: { ...disc, quantity: 10 },
        draft: {},
      },
      lockedHoursAgo: 3,
    },
    { name: 'Osier bed discs', setupId: at.sluice, materialId: at.vinyl, item: { ...disc, quantity: 40 }, draft: {} },
  ];
  for (const cut of DEMO_TEST_CUTS) {
    const { setup, material, daysAgo, ...rest } = cut;
    hoursAgo(daysAgo * DAY_HOURS);
    await taken(
      keepTestCut(db, actor, {
        ...{ id: randomUUID(), setupId: at[setup], materialId: at[material], stack: '', forceUnit: 'gf', depth: 3 },
        ...{ speed: 200, passes: 1, note: '', ...rest },
      }),
    );
  }
  for (const order of jobs) await makeJob(db, actor, order);
  setClock(undefined);
}
