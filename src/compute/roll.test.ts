import { COMPUTATIONS } from './computations';
import type { RollAnswer } from './roll';

function answer(question: unknown): object {
  const answered = COMPUTATIONS.roll.run(question);
  if (!answered.parsed || !answered.result.ok) throw new Error(JSON.stringify(answered));
  return answered.result.value;
}

it('stations along a roll: drift, the longest section, and fifty copies in rows of it', () => {
  const stations = Array.from({ length: 20 }, (_, i) => (i + 1) * 400).flatMap((atMm, i) =>
    [-300, 300].map((asideMm, k) => ({
      atMm,
      asideMm,
      acrossMm: 0.1 + 0.00002 * atMm + 0.01 * Math.cos(7 * i + k),
      alongMm: -0.2 + 0.0004 * atMm + 0.01 * Math.sin(5 * i + 2 * k),
    })),
  );
  const question = {
    ...{ stations, toleranceMm: 0.3, registration: { kind: 'origin', originSdMm: 0.03 } },
    run: { copies: 50, itemWidthMm: 190, itemLengthMm: 271.27, gapMm: 4, printableWidthMm: 600 },
  };
  const out = answer(question);
  const { along, section, rows, unsplit } = out as {
    along: { perMetreMm: { value: number; low: number; high: number } };
    section: { longestMm: number; isBeyondStrip: boolean };
    rows: { rowsPerSection: number; sections: number; typedMm: number };
    unsplit: { errorMm: { along: number } };
  };
  expect(along.perMetreMm.value).toBeCloseTo(0.4, 1);
  expect(along.perMetreMm.low).toBeLessThan(0.4);
  expect(along.perMetreMm.high).toBeGreaterThan(0.4);
  // Nothing keyed in, 0.4 mm a metre are 6 mm after 16 m.
  expect(unsplit.errorMm.along).toBeGreaterThan(5);
  expect(section.longestMm).toBeGreaterThan(1000);
  expect(rows.rowsPerSection * 271.27).toBeLessThan(section.longestMm);
  expect(rows.sections).toBe(Math.ceil(50 / (3 * rows.rowsPerSection)));
  const { section: short } = answer({ ...question, isCorrected: false }) as { section: { longestMm: number } };
  // 0.4 mm a metre from -0.2 mm on reach 0.3 mm after 1.25 m.
  expect(short.longestMm).toBeLessThan(1250);
  expect(COMPUTATIONS.roll.run({ ...question, stations: stations.slice(0, 4) })).toMatchObject({
    result: { error: { kind: 'too-few-readings' } },
  });
  const narrow = { ...question, run: { ...question.run, printableWidthMm: 100 } };
  expect(COMPUTATIONS.roll.run(narrow)).toMatchObject({ result: { error: { kind: 'too-wide' } } });
  expect(COMPUTATIONS.roll.run({ ...question, toleranceMm: 0 })).toMatchObject({ parsed: false });
});

it('what each way to cut a run costs, and what if only half were allowed or drifted; figures that were not read are left out', () => {
  const stations = Array.from({ length: 24 }, (_, i) => (i + 1) * 250).flatMap((atMm, i) =>
    [-100, 100].map((asideMm, k) => ({
      ...{ atMm, asideMm },
      acrossMm: i === 5 ? null : 0.04 * Math.cos(7 * i + k),
      alongMm: 0.0002 * atMm + 0.04 * Math.sin(5 * i + 2 * k),
    })),
  );
  const prices = {
    ...{ setUpMinutes: 4, printMetresPerHour: 12, cutMetresPerHour: 40, finishMinutes: 5 },
    ...{ endWasteMm: 30, hourCost: 20, metreCost: 3, pieceCost: 4 },
  };
  const out = answer({
    ...{ stations, toleranceMm: 0.3, registration: { kind: 'origin', originSdMm: 0.05 }, isWhatIf: true },
    ...{
      farthestMm: 10_000,
      run: { copies: 40, itemWidthMm: 200, itemLengthMm: 246, gapMm: 4, printableWidthMm: 210, prices },
    },
  }) as RollAnswer;
  const { plan, rows, section, whatIf } = out;
  if (!plan || !rows || !whatIf) throw new Error('a plan was asked for');
  const rowsOf = (sections: readonly number[]): number => sections.reduce((sum, k) => sum + k, 0);
  for (const way of [plan.even, plan.best, plan.unsplit]) {
    expect(rowsOf(way.sections)).toBe(40);
    expect(way.cost.total).toBeCloseTo(way.cost.setUp + way.cost.waste + way.cost.spoilt, 9);
    expect(way.cost.setUp).toBeCloseTo(way.sections.length * 3, 9);
    expect(way.times).toHaveLength(way.sections.length);
  }
  expect(Math.max(...plan.best.sections)).toBeLessThanOrEqual(rows.rowsPerSection);
  expect(plan.best.cost.total).toBeLessThanOrEqual(plan.even.cost.total + 1e-9);
  expect(plan.unsplit.spoilt).toBeGreaterThan(plan.even.spoilt);
  expect(whatIf.halfTolerance.section.longestMm).toBeLessThan(section.longestMm);
  expect(whatIf.halfDrift.section.longestMm).toBeGreaterThan(section.longestMm);
  // Wanted before any way can be done: every way is as late as its own times say, and the cheapest no dearer than the others.
  const due = { dueHours: 0.5, lateHourCost: 60 };
  const soon = answer({
    ...{ stations, toleranceMm: 0.3, registration: { kind: 'origin', originSdMm: 0.05 }, farthestMm: 10_000 },
    run: {
      ...{ copies: 40, itemWidthMm: 200, itemLengthMm: 246, gapMm: 4, printableWidthMm: 210 },
      prices: { ...prices, due },
    },
  }) as RollAnswer;
  if (!soon.plan) throw new Error('a plan was asked for');
  expect(soon.plan.isDueWeighed).toBe(true);
  for (const way of [soon.plan.even, soon.plan.best, soon.plan.unsplit])
    expect(way.cost.late).toBeCloseTo(60 * ((way.times.at(-1)?.finish.toHours ?? 0) - 0.5), 9);
  expect(soon.plan.best.cost.total).toBeLessThanOrEqual(soon.plan.even.cost.total);
  expect(soon.plan.best.cost.late).toBeLessThanOrEqual(
    60 * ((plan.best.times.at(-1)?.finish.toHours ?? 0) - 0.5) + 1e-9,
  );
});
