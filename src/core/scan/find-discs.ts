import { darkPatches, type DarkPatch } from './dark-patches';
import { edgePoints } from './rays';
import { fitCircle } from './circle-fit';
import { seededRng } from '../math/random';
import type { GrayImage, Pixel } from './gray';
import { fromView } from './local-view';
import { darkLevels } from './local-white';
import type { DecodedDisc } from './page';
import { readRing, type SeenEllipse } from './ring-code';

/** So many pixels has the reduced picture in which discs are looked for, a fifth less where a whole factor then fits. */
const FINDING_PIXELS = 2.4e6;
const FACTOR_GIVEN = 0.2;
/** A disc narrower than this in the reduced picture has dots too small to be told apart. */
const LEAST_WIDTH_PX = 12;
/** A ring or a disc, with or without a hole: as wide as high, and so much of its box filled. Also turned away by 25 degrees. */
const LEAST_ASPECT = 0.8;
const MOST_ASPECT = 1.25;
const LEAST_FILL = 0.15;
const MOST_FILL = 0.87;
const MOST_CANDIDATES = 4000;
const RAYS = 120;

const isRound = ({ width, height, areaPx }: DarkPatch): boolean => {
  const aspect = width / height;
  const fill = areaPx / (width * height);
  const isLarge = Math.min(width, height) >= LEAST_WIDTH_PX;
  return isLarge && aspect > LEAST_ASPECT && aspect < MOST_ASPECT && fill > LEAST_FILL && fill < MOST_FILL;
};

/** The disc's edge on the full picture, in units of its radius as the patch shows it. */
function ellipseOf(image: GrayImage, patch: DarkPatch, factor: number): SeenEllipse | null {
  const [rx, ry] = [(patch.width * factor) / 2, (patch.height * factor) / 2];
  const centre = { x: (patch.left + patch.width / 2) * factor, y: (patch.top + patch.height / 2) * factor };
  // Rays in "mm" of a disc of 6: the plateaus and reaches of the measuring hold for it as they are.
  const unit = 6;
  const view = { centre, right: { x: rx / unit, y: 0 }, up: { x: 0, y: -ry / unit } };
  const search = { x: 0, y: 0, fromMm: unit - 0.9, toMm: unit + 0.9, kind: 'dark-inside', leastStep: 20 } as const;
  const points = edgePoints(image, view, { ...search, rays: RAYS });
  const fit = fitCircle(points, {
    expectedRadiusMm: unit,
    radiusSdMm: 0.5,
    ovalSdMm: 0.5,
    toleranceMm: 0.3,
    rng: seededRng(3),
  });
  if (!fit || fit.inlierCount < points.count / 3) return null;
  const { x, y, radiusMm, ovalCosMm, ovalSinMm } = fit;
  // A circle stretched along some way: radius + oval, told by a symmetric matrix.
  const stretched = (cos: number, sin: number): Pixel => {
    const u = (radiusMm + ovalCosMm) * cos + ovalSinMm * sin;
    const v = ovalSinMm * cos + (radiusMm - ovalCosMm) * sin;
    return { x: u * view.right.x, y: v * view.up.y };
  };
  return {
    centre: fromView(view, { x, y }),
    right: stretched(1, 0),
    up: stretched(0, 1),
  };
}

/** How many times smaller a picture is in which discs are looked for. */
export const findingFactor = ({ width, height }: Pick<GrayImage, 'width' | 'height'>): number =>
  Math.max(1, Math.floor(Math.sqrt((width * height) / FINDING_PIXELS) + FACTOR_GIVEN));

/**
 * Dark round things whose ring of dots shows a word.
 * @param small the picture reduced by its finding factor.
 */
export function findDiscs(image: GrayImage, small: GrayImage): readonly DecodedDisc[] {
  const factor = findingFactor(image);
  const levels = darkLevels(small);
  const round = darkPatches(small, levels, LEAST_WIDTH_PX ** 2 * LEAST_FILL)
    .filter(isRound)
    .sort((a, b) => b.areaPx - a.areaPx)
    .slice(0, MOST_CANDIDATES);
  return round.flatMap((patch) => {
    const ellipse = ellipseOf(image, patch, factor);
    const code = ellipse && readRing(image, ellipse);
    return ellipse && code ? [{ ellipse, code }] : [];
  });
}
