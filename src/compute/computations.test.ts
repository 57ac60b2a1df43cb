import { answer } from './answer';

interface Reading {
  readonly axis: 'across' | 'along';
  readonly xMm: number;
  readonly yMm: number;
  readonly displacementMm: number;
  readonly standardUncertaintyMm: number;
}

const SPOTS = [-75, 0, 75].flatMap((x) => [-115, 0, 115].map((y) => [x, y] as const));
const AREA = { workWidthMm: 180, workLengthMm: 260, toleranceMm: 0.3, markSdMm: 0 };

function compute(
  what: string,
  input: unknown,
): { status: 0 | 1; out: Record<string, unknown>; problem: Record<string, unknown> } {
  const answered = answer(what, typeof input === 'string' ? input : JSON.stringify(input));
  // As it is written: what JSON cannot hold is lost here as well.
  const told = JSON.parse(JSON.stringify(answered.ok ? answered.value : answered.error)) as Record<string, unknown>;
  return answered.ok ? { status: 0, out: told, problem: {} } : { status: 1, out: {}, problem: told };
}

function readings(d: (x: number, y: number) => readonly [number, number], spots = SPOTS): Reading[] {
  return spots.flatMap(([xMm, yMm]) =>
    (['across', 'along'] as const).map((axis, i) => ({
      axis,
      xMm,
      yMm,
      displacementMm: d(xMm, yMm)[i] ?? 0,
      standardUncertaintyMm: 0.05,
    })),
  );
}

it('readings cut from either side: what is lost at a change of direction is told apart from the map', () => {
  const plain = readings((x, y) => [0.2 + 0.001 * x, -0.1 + 0.002 * y]);
  const sided = plain.map((r, i) => {
    const approach = Math.floor(i / 2) % 2 === 0 ? 1 : -1;
    return { ...r, approach, displacementMm: r.displacementMm + (r.axis === 'across' ? 0.08 * approach : 0) };
  });
  const { status, out } = compute('fit', { ...AREA, readings: sided });
  expect(status).toBe(0);
  const { backlash, parts, reducedChiSquare } = out as {
    backlash: Record<string, { halfMm: number }>;
    parts: Record<string, { value: number }>;
    reducedChiSquare: number;
  };
  expect(backlash.across?.halfMm).toBeCloseTo(0.08, 9);
  expect(backlash.along?.halfMm).toBeCloseTo(0, 9);
  expect(parts.offsetAcrossMm?.value).toBeCloseTo(0.2, 9);
  expect(parts.scaleAcross?.value).toBeCloseTo(0.001, 9);
  expect(reducedChiSquare).toBeCloseTo(0, 9);
});

it('exact readings of a known map: shift, turn and scales come out, the worst corner by hand', () => {
  const { status, out } = compute('fit', {
    ...AREA,
    readings: readings((x, y) => [0.2 + 0.002 * x, -0.1 + 0.001 * y]),
  });
  expect(status).toBe(0);
  expect(out).toMatchObject({ model: 'affine', verdict: 'fail', untold: [], leftOut: [] });
  const parts = out.parts as Record<string, { value: number; standardError: number }>;
  expect(parts.offsetAcrossMm?.value).toBeCloseTo(0.2, 12);
  expect(parts.scaleAcross?.value).toBeCloseTo(0.002, 12);
  expect(parts.scaleAlong?.value).toBeCloseTo(0.001, 12);
  expect(parts.rotationRad?.value).toBeCloseTo(0, 12);
  // Standard errors by hand: u / sqrt(9) for a shift, u / sqrt(sum x^2) = .05 / sqrt(6 x 75^2) for the scale across.
  expect(parts.offsetAcrossMm?.standardError).toBeCloseTo(0.05 / 3, 12);
  expect(parts.scaleAcross?.standardError).toBeCloseTo(0.05 / Math.sqrt(6 * 75 ** 2), 12);
  expect(out.worstMm).toBeCloseTo(Math.hypot(0.2 + 0.002 * 90, -0.1 - 0.001 * 130), 12);
});

it('the verdict is the bound against the tolerance, and the border is what hides 95 in 100 next jobs', () => {
  const good = compute('fit', { ...AREA, readings: readings(() => [0.02, 0.01]) }).out;
  expect(good.verdict).toBe('pass');
  expect(good.upperMm as number).toBeLessThanOrEqual(0.3);
  expect(good.borderMm).toBe((good.nextJob as { q95Mm: number }).q95Mm);
  const marks = [
    [-82, -125],
    [82, -125],
    [82, 125],
    [-82, 125],
  ].map(([xMm, yMm]) => ({ xMm, yMm }));
  const noisy = compute('fit', {
    ...AREA,
    markSdMm: 0.1,
    marks,
    markModel: 'affine',
    readings: readings(() => [0.02, 0.01]),
  }).out;
  expect(noisy.borderMm as number).toBeGreaterThan(good.borderMm as number);
  expect(noisy.upperMm as number).toBeGreaterThan(good.upperMm as number);
});

describe('degenerate readings: each its own named answer', () => {
  const one = readings(() => [0.1, 0.2], [[10, 20]]);
  it.each([
    ['none', [], { kind: 'no-readings' }],
    [
      'one axis only',
      readings(() => [0.1, 0.2]).filter((r) => r.axis === 'across'),
      { kind: 'axis-missing', axis: 'along' },
    ],
    ['mirrored', readings((x) => [-2 * x, 0]), { kind: 'mirrored' }],
  ] as const)('%s', (_, given, problem) => {
    const done = compute('fit', { ...AREA, readings: given });
    expect([done.status, done.problem]).toEqual([1, problem]);
  });
  it.each([
    ['one spot', one, 'shift'],
    ['all at one place', [...one, ...one, ...one], 'shift'],
    [
      'a millionth of a mm apart',
      readings(
        () => [0.1, 0.2],
        [
          [0, 0],
          [1e-6, 0],
          [0, 1e-6],
        ],
      ),
      'shift',
    ],
    [
      'on one line',
      readings(
        () => [0.1, 0.2],
        [
          [-60, -90],
          [0, 0],
          [60, 90],
        ],
      ),
      'similarity',
    ],
    [
      'on one line, rounded',
      readings(
        () => [0.1, 0.2],
        [
          [-60, -90],
          [-20.01, -30],
          [20, 30.01],
          [60, 90],
        ],
      ),
      'similarity',
    ],
    [
      'two spots',
      readings(
        () => [0.1, 0.2],
        [
          [-60, -90],
          [60, 90],
        ],
      ),
      'similarity',
    ],
  ] as const)('%s: a smaller model, and what it cannot tell is named', (_, given, model) => {
    const { status, out } = compute('fit', { ...AREA, readings: given });
    expect([status, out.model]).toEqual([0, model]);
    expect((out.untold as string[]).length).toBeGreaterThan(0);
  });
  it('huge weights do not hurt', () => {
    const given = readings((x, y) => [0.2 + 0.002 * x, 0.001 * y]).map((r, i) => ({
      ...r,
      standardUncertaintyMm: i % 2 ? 1e-6 : 50,
    }));
    expect(compute('fit', { ...AREA, readings: given }).status).toBe(0);
  });
  it.each([
    ['not a number', { ...AREA, readings: [{ ...one[0], displacementMm: null }] }, /displacementMm/],
    ['a million mm away', { ...AREA, readings: [{ ...one[0], xMm: 1e6 }] }, /xMm/],
    ['no uncertainty', { ...AREA, readings: [{ ...one[0], standardUncertaintyMm: 0 }] }, /standardUncertaintyMm/],
    ['no tolerance', { ...AREA, toleranceMm: undefined, readings: one }, /toleranceMm/],
  ])('%s: the field is named', (_, input, words) => {
    const { status, problem } = compute('fit', input);
    expect([status, problem.kind]).toEqual([1, 'not-understood']);
    expect(problem.detail).toMatch(words);
  });
  it('marks too few for what the machine is told to make of them', () => {
    const { problem } = compute('fit', { ...AREA, markModel: 'affine', readings: readings(() => [0, 0]) });
    expect(problem).toEqual({ kind: 'marks-cannot-carry-model' });
  });
});

it('what is no command, or no JSON, is said', () => {
  expect(compute('magic', {}).problem).toMatchObject({ kind: 'unknown-command', got: 'magic' });
  expect(compute('fit', '{"readings": [').problem).toMatchObject({ kind: 'not-json' });
});

it('the border for a larger share of jobs is larger, and for 95 in 100 it is the one of the fit', () => {
  const input = { ...AREA, markSdMm: 0.05, readings: readings(() => [0.1, 0]) };
  const border = (yieldShare: number): number => compute('border', { ...input, yieldShare }).out.borderMm as number;
  expect(border(0.95)).toBe(compute('fit', input).out.borderMm);
  expect(border(0.99)).toBeGreaterThan(border(0.95));
  expect(border(0.5)).toBeLessThan(border(0.95));
  expect(compute('border', { ...input, yieldShare: 1 }).problem.kind).toBe('not-understood');
});

it('a verdict alone is the one of the fit', () => {
  const input = { ...AREA, readings: readings(() => [0.1, 0]) };
  const { out } = compute('verdict', input);
  expect(compute('fit', input).out).toMatchObject(out);
  expect(Object.keys(out)).toEqual(['worstMm', 'lowerMm', 'upperMm', 'verdict', 'advice', 'nextJob']);
});

it('settings: the values to key in by hand, under every turn of the sheet', () => {
  const offset = (id: string, actsOn: string) => ({
    id,
    actsOn,
    unit: 'mm',
    step: 0.1,
    minValue: -40,
    maxValue: 40,
    sense: 1,
    value: 26.5,
  });
  const settings = [offset('ACROSS', 'offset_across'), offset('ALONG', 'offset_along')];
  const area = { workWidthMm: 180, workLengthMm: 260 };
  // The cut lies 3 mm to the right and 1 mm low on the sheet. Turned a quarter counter-clockwise the sheet's right is the
  // machine's leading edge, and its top is the machine's left.
  const wanted = { 0: [23.5, 27.5], 90: [25.5, 23.5], 180: [29.5, 25.5], 270: [27.5, 29.5] } as const;
  for (const [turn, values] of Object.entries(wanted)) {
    const error = { offsetAcrossMm: 3, offsetAlongMm: -1 };
    const { out } = compute('settings', { error, turnDeg: Number(turn), ...area, settings });
    expect((out.settings as { after: number }[]).map((s) => s.after)).toEqual(values);
    expect(out.worstAfterMm).toBeCloseTo(0, 9);
  }
  const wrong = compute('settings', { error: {}, ...area, settings: [{ ...settings[0], unit: 'percent' }] });
  expect(wrong.problem).toMatchObject({ kind: 'not-understood' });
  expect(wrong.problem.detail).toContain('a unit of what it acts on');
});

it('a corrected file: cut with the stated error its lines land where they should, to a plotter unit', () => {
  const file = { text: 'IN;SP1;PU4000,4000;PD8000,4000,8000,8000;PU;' };
  const error = { offsetAcrossMm: 0.5, offsetAlongMm: -0.25, rotationRad: 0.002, scaleAlong: 0.003 };
  const centre = { xMm: 150, yMm: 150 };
  const { out } = compute('corrected-file', { file, cut: ['pen 1'], error, centre });
  const text = (out.file as { text: string }).text;
  const numbers = [...text.matchAll(/(\d+),(\d+)/g)].map((m) => [Number(m[1]) / 40, Number(m[2]) / 40] as const);
  const c = Math.cos(0.002);
  const s = Math.sin(0.002);
  const landed = numbers.map(([x, y]) => {
    const dx = x - 150;
    const dy = (y - 150) * 1.003;
    return [150 + 0.5 + c * dx - s * dy, 150 - 0.25 + s * dx + c * dy] as const;
  });
  const meant = [
    [100, 100],
    [200, 100],
    [200, 200],
  ];
  expect(landed).toHaveLength(3);
  for (const [i, [x, y]] of landed.entries())
    expect(Math.hypot(x - (meant[i]?.[0] ?? 0), y - (meant[i]?.[1] ?? 0))).toBeLessThan(0.019);
  const bytes = compute('corrected-file', {
    file: { base64: Buffer.from(file.text).toString('base64') },
    cut: ['pen 1'],
    error,
    centre,
  }).out.file as { base64: string };
  expect(Buffer.from(bytes.base64, 'base64').toString()).toBe(text);
});

it('a drawing by its colours, and a file that is none refused by name', () => {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><path stroke="red" d="M1 2h5"/></svg>';
  const near = (mm: number): unknown => expect.closeTo(mm, 9);
  expect(compute('drawing', { file: { text: svg } }).out).toMatchObject({
    format: 'svg',
    widthMm: near(40),
    heightMm: near(30),
    groups: [
      {
        by: 'colour',
        name: '#ff0000',
        count: 1,
        box: { left: near(1), right: near(6), bottom: near(28), top: near(28) },
      },
      { by: 'layer', name: 'no layer', count: 1 },
    ],
  });
  expect(compute('drawing', { file: { text: '12 apples' } })).toMatchObject({
    status: 1,
    problem: { kind: 'not-a-drawing', where: 'file' },
  });
  expect(compute('drawing', { file: {} }).problem).toMatchObject({ kind: 'not-understood' });
});
