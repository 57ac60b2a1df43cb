import { identity, then, translation, type Affine, type Point } from '../geometry/affine';
import { fromParameters, type ErrorParameters } from '../geometry/error-parameters';
import { mapOnSheet, type Load } from '../geometry/load';
import type { MarkUse } from '../shop/words';
import { affineOf } from '../fit/design';
import { markObservations, type LoadModel } from '../fit/load-noise';
import { weightedFit } from '../fit/weighted-fit';
import { leastSquares, matrix } from '../math/qr';
import { standardNormal, type Rng } from '../math/random';
import { settingsMap, type SettingOrder } from '../setting/plan-settings';
import type { MachineSetting } from '../setting/machine-setting';
import { cutAfter } from '../setting/plan-settings';

/** What is true of a simulated setup and hidden from whoever calibrates it. */
export interface SetupTruth {
  /** Error of the cutter with its settings as they stood when the truth was laid down, machine frame. */
  readonly machineError: ErrorParameters;
  readonly markSdMm: number;
  /** Print over nominal, sheet frame: 1 when printed at actual size. */
  readonly printScale: number;
  /** Px per inch at which the sending program really imports a drawing. */
  readonly importPxPerInch: 72 | 96;
  /** Real direction of each setting, by id: the shop may not know it yet. */
  readonly senses: Readonly<Record<string, 1 | -1>>;
  readonly order: SettingOrder;
  /** How far from the page's middle the program puts the block, sheet frame; which way round it lies, the load tells by its arrow. */
  readonly placement?: { readonly xMm: number; readonly yMm: number };
  /** How much larger a tracing program's outline comes out than the figure. */
  readonly traceGrowthMm?: number;
  /** What the machine really makes of its marks; as the shop has told when absent. */
  readonly markUse?: MarkUse;
  /** Where the knife cuts less where a pen in its place draws, machine frame. */
  readonly knifeFromPen?: { readonly xMm: number; readonly yMm: number };
  /** How the back's print lies against the front's, in the front's sheet frame. */
  readonly backPrint?: { readonly xMm: number; readonly yMm: number; readonly rotationRad: number };
}

/** One axis of a load's affine noise: t, a, b of the misread marks. */
function noiseOf(marks: readonly Point[], sdMm: number, rng: Rng): readonly number[] {
  const x = matrix(marks.length, 3, (row, column) => [1, marks[row]!.x, marks[row]!.y][column]!);
  const misread = marks.map(() => sdMm * standardNormal(rng));
  const solved = leastSquares(x, misread);
  return solved.ok ? [...solved.value.parameters] : [0, 0, 0];
}

/** A machine that makes less than an affine map of its marks: least squares of its own model to the misread marks. */
function modelNoise(marks: readonly Point[], sdMm: number, rng: Rng, model: LoadModel): Affine {
  const places = marks.length === 0 ? [{ x: 0, y: 0 }] : marks;
  const misread = markObservations(places, sdMm, () => sdMm * standardNormal(rng));
  const solved = weightedFit(misread, model);
  return solved.ok ? affineOf(solved.value.beta) : identity();
}

/** The map by which one load's noisy mark reading puts everything out, sheet frame. */
export function loadNoise(marks: readonly Point[], sdMm: number, rng: Rng, model: LoadModel = 'affine'): Affine {
  if (sdMm === 0) return identity();
  if (model !== 'affine') return modelNoise(marks, sdMm, rng, model);
  const [tx, a, b] = noiseOf(marks, sdMm, rng);
  const [ty, c, d] = noiseOf(marks, sdMm, rng);
  return { xx: 1 + a!, xy: b!, yx: c!, yy: 1 + d!, tx: tx!, ty: ty! };
}

export interface CutConditions {
  readonly truth: SetupTruth;
  readonly load: Load;
  readonly marks: readonly Point[];
  /** What the machine makes of its marks; affine when not told. */
  readonly loadModel?: LoadModel;
  /** How far each mark is printed from where the machine was told it is; nowhere when absent. */
  readonly markMoves?: readonly Point[];
  /** A pen is in the holder. */
  readonly isPen?: boolean;
  /** Settings with the values they had when the truth was laid down, and the values they have now. */
  readonly settings: readonly MachineSetting[];
  readonly valuesNow: readonly number[];
}

/** A machine follows its marks: when they stand elsewhere than it was told, so does the cut. */
function markResponse({ marks, markMoves, loadModel = 'affine' }: CutConditions): Affine {
  if (!markMoves || marks.length === 0) return identity();
  const seen = markObservations(marks, 1, (axis, i) => (axis === 'across' ? markMoves[i]!.x : markMoves[i]!.y));
  const solved = weightedFit(seen, loadModel);
  return solved.ok ? affineOf(solved.value.beta) : identity();
}

const AT_THE_KNIFE = { xMm: 0, yMm: 0 };

/** Where the cutter really puts nominal sheet points on this load, before the print's own scale. */
export function actualCutMap(conditions: CutConditions, rng: Rng): Affine {
  const { truth, load, marks, loadModel = 'affine', settings, valuesNow } = conditions;
  const real = settings.map((s) => ({ ...s, sense: truth.senses[s.id] ?? s.sense }));
  const d0 = settingsMap(
    real,
    settings.map((s) => s.value),
  );
  const d1 = settingsMap(real, valuesNow);
  const { xMm, yMm } = conditions.isPen ? (truth.knifeFromPen ?? AT_THE_KNIFE) : AT_THE_KNIFE;
  const knife = cutAfter(fromParameters<'machine'>(truth.machineError), d0, d1, truth.order);
  const constant = then(knife, translation<'machine'>(-xMm, -yMm));
  const followed = then(mapOnSheet(constant, load), markResponse(conditions));
  return then(followed, loadNoise(marks, truth.markSdMm, rng, loadModel));
}
