import { seededRng, standardNormal } from '../math/random';
import { readBorders } from '../reading/borders';
import { renderPiece, type PiecePhoto, type PrintShape, type SimulatedPiece } from '../simulate/piece-image';
import { measurePiece } from './measure-piece';
import type { PieceProblem, PieceReading, PieceSought } from './piece-reading';

const LABEL: PrintShape = { kind: 'rectangle', widthMm: 54, heightMm: 34 };
const ROUND: PrintShape = { kind: 'ellipse', widthMm: 44, heightMm: 44 };
const OVAL: PrintShape = { kind: 'ellipse', widthMm: 56, heightMm: 38 };
const FLOWER: PrintShape = { kind: 'waves', radiusMm: 24, waves: 5, share: 0.12 };

function soughtOf({ print, borderMm }: Pick<SimulatedPiece, 'print' | 'borderMm'>): PieceSought {
  if (print.kind === 'waves') {
    // Its extents: five waves stand highest at the right, and nearest to upright at 72 degrees.
    const at = (angle: number) => print.radiusMm * (1 + print.share * Math.cos(print.waves * angle));
    const angles = Array.from({ length: 3600 }, (_, i) => (i * Math.PI) / 1800);
    const [xs, ys] = [angles.map((a) => at(a) * Math.cos(a)), angles.map((a) => at(a) * Math.sin(a))];
    return {
      shape: 'other',
      widthMm: Math.max(...xs) - Math.min(...xs) + 2 * borderMm,
      heightMm: Math.max(...ys) - Math.min(...ys) + 2 * borderMm,
    };
  }
  const size = { widthMm: print.widthMm + 2 * borderMm, heightMm: print.heightMm + 2 * borderMm };
  return { shape: print.kind === 'rectangle' ? 'rectangle' : 'other', ...size };
}

interface Trial {
  readonly acrossMm: number;
  readonly alongMm: number;
  readonly sdMm: number;
  readonly borderMm: number;
}

function reading(piece: SimulatedPiece, photo: PiecePhoto, seed: number): PieceReading {
  const told = measurePiece(renderPiece(piece, photo, seededRng(seed)), soughtOf(piece));
  if (!told.ok) throw new Error(JSON.stringify(told.error));
  return told.value;
}

/** Error of the shift that a photograph tells, by the sums that the caliper's figures go through as well. */
function trial(print: PrintShape, seed: number, photo: PiecePhoto, turnRad = 0): Trial {
  const rng = seededRng(seed);
  const shift = { x: 0.3 * standardNormal(rng), y: 0.3 * standardNormal(rng) };
  const piece = { print, borderMm: 2.5, shift, turnRad };
  const { borders, borderSdMm } = reading(piece, photo, seed);
  const read = readBorders(borders, { side: 'outside', nominalMm: null, borderSdMm, toleranceMm: 0.3 });
  if (!read.ok) throw new Error('no reading');
  return {
    acrossMm: read.value.shift.x - shift.x,
    alongMm: read.value.shift.y - shift.y,
    sdMm: read.value.standardUncertaintyMm,
    borderMm: (borders.leftMm + borders.rightMm + borders.topMm + borders.bottomMm) / 4,
  };
}

const rms = (values: readonly number[]): number => Math.sqrt(values.reduce((s, v) => s + v * v, 0) / values.length);
const SEEDS = [1, 2, 3, 4];
const HELD = { blurMm: 0.07, noiseLevels: 3, fallOff: 0.3, patternMm: 0.8, raggedMm: 0.03 };
const camera = (seed: number, tiltRad: number) => ({ tiltRad, towardsRad: seed, radial: seed % 2 ? 0.03 : -0.03 });

describe('borders of a photographed piece', () => {
  it.each([
    ['a label from straight above', LABEL, 300, 0],
    ['a label, coarse', LABEL, 200, 0],
    ['a label, tilted by 12 degrees', LABEL, 250, 0.21],
    ['a round one', ROUND, 250, 0.05],
    ['an oval one', OVAL, 250, 0.05],
    ['a flower, five waves', FLOWER, 250, 0.05],
  ] as const)('%s: to 0.02 mm, as it says', (_name, print, dotsPerInch, tiltRad) => {
    const trials = SEEDS.map((seed) => trial(print, seed, { ...HELD, dotsPerInch, camera: camera(seed, tiltRad) }));
    const errors = trials.flatMap((t) => [t.acrossMm, t.alongMm]);
    expect(rms(errors)).toBeLessThan(0.02);
    expect(rms(errors.map((e, i) => e / trials[i >> 1]!.sdMm))).toBeLessThan(1.3);
  });

  it('a label that lies aslant, whose cut is turned by half a degree', () => {
    for (const lyingRad of [-0.6, -0.3, 0.1, 0.4, 0.7]) {
      const told = trial(LABEL, 7, { ...HELD, dotsPerInch: 250, lyingRad }, 0.009);
      expect(Math.hypot(told.acrossMm, told.alongMm)).toBeLessThan(0.03);
    }
  });
});

const PIECE: SimulatedPiece = { print: LABEL, borderMm: 2.5, shift: { x: 0.4, y: -0.3 }, turnRad: 0 };
const problem = (piece: SimulatedPiece, photo: PiecePhoto, sought = soughtOf(piece)): PieceProblem | null => {
  const told = measurePiece(renderPiece(piece, photo, seededRng(3)), sought);
  return told.ok ? null : told.error;
};

describe('what cannot be measured says why', () => {
  it('light ground', () => {
    expect(problem(PIECE, { dotsPerInch: 200, groundLevel: 200 })).toEqual({ kind: 'no-contrast' });
  });
  it('a picture of nothing but ground, and one that the piece fills', () => {
    const blank = { width: 400, height: 300, data: new Uint8Array(400 * 300).fill(40) };
    expect(measurePiece(blank, soughtOf(PIECE))).toMatchObject({ error: { kind: 'no-contrast' } });
    const whole = renderPiece(PIECE, { dotsPerInch: 200 }, seededRng(3));
    const from = Math.round(whole.height / 2);
    const half = { width: whole.width, height: whole.height - from, data: whole.data.slice(from * whole.width) };
    expect(measurePiece(half, soughtOf(PIECE))).toMatchObject({ error: { kind: 'reaches-rim' } });
  });
  it('too few pixels', () => {
    expect(problem(PIECE, { dotsPerInch: 100 })).toMatchObject({ kind: 'too-coarse' });
  });
  it('a round one that was told to be a rectangle', () => {
    const round = { ...PIECE, print: ROUND };
    expect(problem(round, { dotsPerInch: 200 }, { ...soughtOf(round), shape: 'rectangle' })).toEqual({
      kind: 'no-rectangle',
    });
  });
  it('another size, and one that lies on its side', () => {
    const photo = { dotsPerInch: 200 };
    expect(problem(PIECE, photo, { shape: 'rectangle', widthMm: 59, heightMm: 59 })).toMatchObject({
      kind: 'other-size',
      isOnItsSide: false,
    });
    expect(problem(PIECE, { ...photo, lyingRad: Math.PI / 2 })).toMatchObject({
      kind: 'other-size',
      isOnItsSide: true,
    });
    const oval = { ...PIECE, print: OVAL };
    expect(problem(oval, { ...photo, lyingRad: Math.PI / 2 })).toMatchObject({ kind: 'other-size', isOnItsSide: true });
  });
  it('print that is hardly darker than the border', () => {
    for (const print of [LABEL, ROUND])
      expect(problem({ ...PIECE, print }, { dotsPerInch: 250, inkLevel: 215 })).toMatchObject({
        kind: 'no-print-edge',
      });
  });
  it('the cut nears the print and runs into it: the truth as long as a border is left, and no false one after that', () => {
    for (const print of [LABEL, ROUND])
      for (const x of [1.5, 2, 2.2, 2.4, 2.45, 2.5, 2.6, 3.2]) {
        const piece = { ...PIECE, print, shift: { x: -x, y: 0 } };
        const told = measurePiece(renderPiece(piece, { dotsPerInch: 250 }, seededRng(3)), soughtOf(piece));
        const { leftMm, rightMm } = told.ok ? told.value.borders : { leftMm: NaN, rightMm: NaN };
        if (x <= 2) expect(told.ok).toBe(true);
        if (told.ok) expect([x, (leftMm - rightMm) / 2]).toEqual([x, expect.closeTo(x, 1)]);
      }
  });
  it('a border that is not the same all round', () => {
    const odd = { ...PIECE, print: FLOWER };
    const cut = renderPiece(odd, { dotsPerInch: 250 }, seededRng(3));
    expect(measurePiece(cut, soughtOf(odd)).ok).toBe(true);
    // A turned flower: its cut's waves no longer follow its print's.
    expect(problem({ ...odd, turnRad: 0.1 }, { dotsPerInch: 250 })).toMatchObject({ kind: 'uneven' });
  });
});

it('a label moved in the picture, turned over or lit otherwise keeps its borders', () => {
  const { borders } = reading(PIECE, { dotsPerInch: 250 }, 4);
  expect(borders.rightMm - borders.leftMm).toBeCloseTo(0.8, 1);
  expect(borders.topMm - borders.bottomMm).toBeCloseTo(-0.6, 1);
  const dark = reading(PIECE, { dotsPerInch: 250, groundLevel: 20, paperLevel: 170, inkLevel: 60 }, 5).borders;
  for (const side of ['leftMm', 'rightMm', 'topMm', 'bottomMm'] as const)
    expect(Math.abs(dark[side] - borders[side])).toBeLessThan(0.02);
});
