/**
 * Speed of laying out as ratios of one run: lines round 2,000 shapes of 100 points taken cluster by cluster against all of
 * them in one call of the polygon package, the plain way; a page laid out again against the frame of a screen (16.7 ms);
 * a job's edge forecast against its normal draws alone. Part of `npm run bench`.
 */
import { EDGE_DRAWS, forecastEdge, type JobError } from '@/core/budget/edge-forecast';
import { piecesOn } from '@/core/budget/job-error';
import { cornersOf } from '@/core/geometry/affine';
import { loadCovariance } from '@/core/fit/load-noise';
import { layOut } from '@/core/layout/lay-out';
import type { JobDraft } from '@/core/layout/job-draft';
import { seededRng, standardNormal } from '@/core/math/random';
import { linesRound } from '@/shapes/outline-round';
import { offsetOf, unionOf, type Ring } from '@/shapes/outline';
import { bestMs, line } from './timing';

const FRAME_MS = 1000 / 60;

const lobed = (x: number, y: number): Ring =>
  Array.from({ length: 100 }, (_, i) => {
    const turn = (2 * Math.PI * i) / 100;
    const r = 4 + 0.6 * Math.sin(7 * turn);
    return { x: x + r * Math.cos(turn), y: y + r * Math.sin(turn) };
  });
const shapes = Array.from({ length: 2000 }, (_, i) => [lobed((i % 50) * 14, Math.floor(i / 50) * 14)]);

line(
  'lines round 2,000 shapes of 100 points',
  bestMs(3, () => linesRound(shapes, { offsetMm: 1.5, keepsHoles: true })),
  'all in one call',
  bestMs(1, () => unionOf(offsetOf(unionOf(shapes.flat()), 1.5))),
);

const crowded = Array.from({ length: 2000 }, (_, i) => [lobed((i % 50) * 10, Math.floor(i / 50) * 10)]);
line(
  'the same so near that all lines run together',
  bestMs(2, () => linesRound(crowded, { offsetMm: 1.5, keepsHoles: true })),
  'all in one call',
  bestMs(1, () => unionOf(offsetOf(unionOf(crowded.flat()), 1.5))),
);

const draft: JobDraft = {
  ...{ laysOut: 'here', form: 'sheet', insetMm: 15.9, backInsetMm: null, isMirrored: false, gapMm: 1 },
  ...{ spareFrontMm: 0, spareRearMm: 0, artBox: null, yieldShare: 0.95, warmingK: 0 },
  page: { name: 'a wide one', widthMm: 1309, lengthMm: 2000 },
  edge: { kind: 'border', mm: 1 },
  items: [
    {
      ...{ id: 'a', name: 'small ones', quantity: 1000, widthMm: 30, lengthMm: 30, mayTurn: true },
      art: { kind: 'plain', shape: 'ellipse', cornerMm: 0 },
    },
  ],
};
const marks = { kind: 'with_intermediates', insetMm: 15.9, sizeMm: 10, keepOutMm: 5, edgeMinMm: 10 } as const;
const margins = { leftMm: 5, rightMm: 5, topMm: 5, bottomMm: 5 };
const cells = new Map([['a', { widthMm: 32, lengthMm: 32 }]]);
const again = () => layOut(draft, { margins, marks }, cells);
line('2,000 copies laid out again', bestMs(20, again), 'a frame of a screen', FRAME_MS);

const laid = again();
if (!laid.ok) throw new Error(laid.error.kind);
const pieces = piecesOn(laid.value.placements, laid.value.page, () => true);
const places = cornersOf(1270, 1960);
const error: JobError = {
  beta: [0.05, 0.02, 1e-5, 0, 0, 1e-5],
  constantCovariance: loadCovariance(places, 0.03),
  loadCovariance: loadCovariance(places, 0.05),
  growthSd: 0,
};
line(
  `edge of ${pieces.length} pieces, ${EDGE_DRAWS} jobs`,
  bestMs(5, () => forecastEdge(error, pieces, seededRng(1))),
  'its normal draws alone',
  bestMs(5, () => {
    const rng = seededRng(1);
    let sum = 0;
    for (let i = 0; i < 6 * EDGE_DRAWS; i++) sum += standardNormal(rng);
    return sum;
  }),
);
