import { eq } from 'drizzle-orm';
import { NO_ERROR, type ErrorParameters } from '@/core/geometry/error-parameters';
import { seededRng, standardNormal, type Rng } from '@/core/math/random';
import type { Family, Route } from '@/core/shop/words';
import { testDatabase, type TestDatabase } from '@/db/database.testing';
import { machineSetting } from '@/db/schema/settings';
import { person } from '@/db/schema/shop';
import { obey } from './obedient-operator.testing';
import { INTERRUPTIONS, type Ending, type OperatorOrder } from './operator-hands.testing';
import { makeShop, type ShopOrder } from './shop.testing';

/** More of them by hand: OPERATOR_RUNS=500. */
const RUNS = Number(process.env.OPERATOR_RUNS ?? 40);
jest.setTimeout(1_800_000);

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(() => test.close());

const pick = <T>(rng: Rng, from: readonly T[]): T => from[Math.floor(rng() * from.length)]!;

interface Machine {
  readonly family: Family;
  readonly route: Route;
  readonly isWizard?: boolean;
  readonly program?: ShopOrder['program'];
}

const MACHINES: readonly Machine[] = [
  { family: 'F1', route: 'A' },
  { family: 'F1c', route: 'D' },
  { family: 'F2', route: 'C', program: { knowsCutBy: 'spot_ink', spotInkName: 'Plumb', opens: ['pdf'] } },
  { family: 'F3', route: 'D' },
  { family: 'F4', route: 'D' },
  { family: 'F7', route: 'E', program: { marksPlacedBy: 'mat', opens: ['png'] } },
  { family: 'F1', route: 'D', isWizard: true },
];

/** Offsets of every size from a step to 12 mm; the rest within what machines are seen to do. */
function errorOf(rng: Rng): ErrorParameters {
  const size = pick(rng, [0.1, 0.3, 0.3, 0.8, 0.8, 2.5, 12]);
  const part = (sd: number): number => sd * standardNormal(rng);
  return {
    ...NO_ERROR,
    offsetAcrossMm: size * (2 * rng() - 1),
    offsetAlongMm: size * (2 * rng() - 1),
    rotationRad: part(0.0007),
    scaleAcross: part(0.0007),
    scaleAlong: part(0.0007),
    squareness: part(0.0004),
  };
}

interface Run {
  readonly seed: number;
  readonly ending: Ending;
  readonly limitMm: number;
  readonly markSdMm: number;
  readonly machine: Machine;
}

async function runOf(seed: number): Promise<Run> {
  const rng = seededRng(seed);
  const machine = MACHINES[seed % MACHINES.length]!;
  const limitMm = pick(rng, [0.2, 0.3, 0.5, 0.8]);
  const markSdMm = pick(rng, [0.02, 0.05, 0.1, 0.15]);
  const isUnknown = rng() < 0.35;
  const shop = await makeShop(test.database, {
    ...{ error: errorOf(rng), markSdMm, limitMm, family: machine.family, route: machine.route },
    senses: isUnknown ? [null, null, 1, 1] : [1, 1, 1, 1],
    ...(machine.program && { program: machine.program }),
  });
  if (machine.isWizard)
    await test.database
      .update(machineSetting)
      .set({ kind: 'wizard', unit: 'step', unitSize: 0.1, step: 1, combine: 'adds', entry: 'change' })
      .where(eq(machineSetting.id, shop.settingIds[0]!));
  if (rng() < 0.3)
    await test.database.update(person).set({ unitSystem: 'in-fraction' }).where(eq(person.id, shop.actor.personId));
  const interrupted: OperatorOrder['interrupted'] = Object.fromEntries(
    [1, 2, 3, 4, 5].flatMap((at) => (rng() < 0.2 ? [[at, pick(rng, INTERRUPTIONS)]] : [])),
  );
  return { seed, limitMm, markSdMm, machine, ending: await obey(test.database, { shop, seed, limitMm, interrupted }) };
}

const line = ({ seed, ending: e, limitMm, markSdMm, machine }: Run): string =>
  `${seed} ${machine.family}${machine.isWizard ? ' wizard' : ''} limit ${limitMm} marks ${markSdMm}: ${e.kind}, ${e.beforeMm.toFixed(2)} -> ${e.afterMm.toFixed(2)} mm, ${e.sheets} sheets, ${e.loads} loads: ${e.pressed.join(', ')}`;

const medianOf = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

describe('whoever presses the dark button and types what the screen says', () => {
  const runs: Run[] = [];
  beforeAll(async () => {
    for (let seed = 1; seed <= RUNS; seed++) runs.push(await runOf(seed));
    if (process.env.OPERATOR_SHOWN === '1') process.stdout.write(`${runs.map(line).join('\n')}\n`);
  });
  const of = (isSo: (run: Run) => boolean): readonly string[] => runs.filter(isSo).map(line);

  it('never goes round in a loop and is never refused what the screen offered', () => {
    expect(of(({ ending }) => ending.kind === 'loop' || ending.kind === 'refused')).toEqual([]);
  });
  it('loses no reading', () => {
    expect(of(({ ending }) => ending.lostReadings > 0)).toEqual([]);
  });
  it('uses at most six loads, two sheets and three loads in the middle', () => {
    expect(of(({ ending }) => ending.loads > 6)).toEqual([]);
    expect(medianOf(runs.map((r) => r.ending.sheets))).toBeLessThanOrEqual(2);
    expect(medianOf(runs.map((r) => r.ending.loads))).toBeLessThanOrEqual(3);
  });
  it('ends worse than it began by 0.3 mm never, by 0.05 mm and a mark\u2019s SD in at most one of a hundred', () => {
    const worse = (byMm: (run: Run) => number) => of((run) => run.ending.afterMm - run.ending.beforeMm > byMm(run));
    expect(worse(() => 0.3)).toEqual([]);
    const slightly = worse((run) => 0.05 + run.markSdMm);
    expect(slightly.length > RUNS / 100 ? slightly : []).toEqual([]);
  });
  it('is in register where it says so, in at least 95 of 100', () => {
    const said = runs.filter(({ ending }) => ending.kind === 'in-register');
    const untrue = said.filter(({ ending, limitMm }) => ending.afterMm > limitMm).map(line);
    expect(said.length).toBeGreaterThan(RUNS / 2);
    expect(untrue.length > 0.05 * said.length ? untrue : []).toEqual([]);
  });
});
