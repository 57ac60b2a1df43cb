/**
 * The same pictures and the same points by an independent library: OpenCV 4 from Debian, called as its documentation has it.
 * Only in the long tests: it is not wanted on every machine.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Point } from '../geometry/affine';
import type { GrayImage, Pixel } from './gray';
import { cameraLens, homographyThrough } from './lens';
import { inView } from './local-view';
import { LARGE_FIGURES } from '../simulate/large-figures';
import { errorsOf, mustMeasure, rmsOf, scanned, sheetFigures } from './scan-trials.testing';

function opencv(program: string, input: object): unknown {
  const done = spawnSync('/usr/bin/python3', ['-c', program], {
    input: JSON.stringify(input),
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  if (done.status !== 0) throw new Error(done.stderr.slice(-500));
  return JSON.parse(done.stdout);
}

/** Contours of the thresholded picture and of what lies in them, each as an ellipse: middle and axes, pixels. */
const ELLIPSES = `
import cv2, json, sys
path = json.load(sys.stdin)['path']
image = cv2.imread(path, cv2.IMREAD_GRAYSCALE)
_, dark = cv2.threshold(image, 0, 255, cv2.THRESH_BINARY_INV + cv2.THRESH_OTSU)
contours, tree = cv2.findContours(dark, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
out = []
for contour, links in zip(contours, tree[0]):
    if len(contour) < 30: continue
    (x, y), axes, _ = cv2.fitEllipse(contour)
    out.append([x, y, sum(axes) / 4, int(links[3] >= 0)])
print(json.dumps(out))
`;

type SeenEllipse = readonly [x: number, y: number, radius: number, isHole: number];

function ellipsesOf({ width, height, data }: GrayImage): readonly SeenEllipse[] {
  const folder = mkdtempSync(join(tmpdir(), 'scan-'));
  const path = join(folder, 'scan.pgm');
  writeFileSync(path, Buffer.concat([Buffer.from(`P5\n${width} ${height}\n255\n`), data]));
  try {
    return opencv(ELLIPSES, { path }) as readonly SeenEllipse[];
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** The nearest ellipse of about the radius; its middle in our pixels, whose corners are whole numbers. */
function nearest(all: readonly SeenEllipse[], to: Pixel, radiusPx: number, isHole: 0 | 1): Pixel {
  const own = all
    .filter(([, , radius, hole]) => hole === isHole && Math.abs(radius / radiusPx - 1) < 0.1)
    .map(([x, y]) => ({ x: x + 0.5, y: y + 0.5 }));
  const gap = (p: Pixel): number => Math.hypot(p.x - to.x, p.y - to.y);
  const found = own.reduce<Pixel | null>((best, p) => (best === null || gap(p) < gap(best) ? p : best), null);
  if (!found || gap(found) > radiusPx) throw new Error('not found by the reference');
  return found;
}

describe('against OpenCV', () => {
  it.each([
    ['large discs', LARGE_FIGURES, 300, 0.003],
    ['large discs', LARGE_FIGURES, 600, 0.0021],
    ['a shipped sheet', sheetFigures('full'), 300, 0.004],
  ] as const)(
    '%s, the same circles in the same picture at %#',
    (_name, figures, dotsPerInch, referenceSdMm) => {
      const trial = scanned(figures, dotsPerInch, { dotsPerInch, turnRad: 0.01 });
      const ours = mustMeasure(trial.image, figures);
      const ellipses = ellipsesOf(trial.image);
      const gaps = ours.discs.flatMap(({ view, displacement: d }, i) => {
        if (!view) return [];
        const perMm = Math.hypot(view.right.x, view.right.y);
        const figure = figures[i]!;
        const print = inView(view, nearest(ellipses, view.centre, figure.radiusMm * perMm, 0));
        const cut = inView(view, nearest(ellipses, view.centre, figure.cutRadiusMm * perMm, 1));
        return d ? [d.acrossMm - (cut.x - print.x), d.alongMm - (cut.y - print.y)] : [];
      });
      expect(gaps).toHaveLength(2 * figures.length);
      const joint = Math.hypot(rmsOf(errorsOf(ours, trial).errors), referenceSdMm);
      expect(rmsOf(gaps)).toBeLessThan(1.3 * joint);
      // And neither lies to one side of the other.
      expect(Math.abs(gaps.reduce((sum, g) => sum + g, 0) / gaps.length)).toBeLessThan(joint / 3);
    },
    240_000,
  );

  it('homography and radial term of a camera: the same to 2e-5', () => {
    const grid = [-2, -1, 0, 1, 2].flatMap((i) => [-3, -1, 0, 1, 3].map((j): Point => ({ x: 38 * i, y: 40 * j })));
    const [width, height, focalPx] = [3000, 4000, 3600];
    for (const [rx, ry, rz, radial] of [
      [0.1, -0.05, 0.3, 0.02],
      [-0.3, 0.2, 2, -0.08],
      [0.05, 0.38, -1, 0.08],
    ] as const) {
      const halfDiagonalPx = Math.hypot(width, height) / 2;
      // OpenCV reckons radii in focal lengths.
      const k1 = radial * (focalPx / halfDiagonalPx) ** 2;
      const { bent, straight, homography } = opencv(
        `
import cv2, json, sys, numpy as np
q = json.load(sys.stdin)
points = np.array([[p['x'], p['y'], 0] for p in q['grid']], float)
camera = np.array([[q['f'], 0, q['w'] / 2], [0, q['f'], q['h'] / 2], [0, 0, 1]], float)
turn = np.array(q['turn'], float); away = np.array([5.0, -9.0, 430.0])
bent, _ = cv2.projectPoints(points, turn, away, camera, np.array([q['k1'], 0, 0, 0]))
straight, _ = cv2.projectPoints(points, turn, away, camera, None)
found, _ = cv2.findHomography(points[:, :2], straight[:, 0])
print(json.dumps({'bent': bent[:, 0].tolist(), 'straight': straight[:, 0].tolist(), 'homography': found.ravel().tolist()}))
`,
        { grid, f: focalPx, w: width, h: height, turn: [rx, ry, rz], k1 },
      ) as { readonly [key in 'bent' | 'straight']: readonly [number, number][] } & {
        readonly homography: readonly number[];
      };
      const seen = (places: readonly [number, number][]) =>
        places.map(([x, y], i) => ({ at: grid[i]!, seen: { x, y } }));
      const relative = (a: readonly number[]): number =>
        Math.max(...a.map((h, i) => Math.abs(h - homography[i]!) / Math.max(Math.abs(homography[i]!), 1e-3)));
      expect(relative(homographyThrough(seen(straight)) ?? [])).toBeLessThan(2e-5);
      const lens = cameraLens(seen(bent), { width, height });
      expect(relative(lens?.homography ?? [])).toBeLessThan(2e-5);
      expect(Math.abs((lens?.radial ?? NaN) / radial - 1)).toBeLessThan(2e-5);
    }
  });
});
