import { identity, inverseOf, largestDisplacement, then, type Affine, type Point } from '../geometry/affine';
import { leastSquares, matrix } from '../math/qr';
import { isOffset, onStep, reachOf, settingMap, typedFor, type MachineSetting } from './machine-setting';

type MachineMap = Affine<'machine', 'machine'>;
/** Whether the machine applies its settings after (last) or before (first) its own error. */
export type SettingOrder = 'settings-last' | 'settings-first';

export interface SettingChange {
  readonly setting: MachineSetting;
  readonly before: number;
  readonly after: number;
  /** What the display wants typed. */
  readonly toType: number;
  /** True when the wanted value lies outside the setting's range. */
  readonly isAtLimit: boolean;
}

export interface SettingsPlan {
  readonly changes: readonly SettingChange[];
  /** Error map expected after the change, machine frame. */
  readonly after: MachineMap;
  readonly worstBeforeMm: number;
  readonly worstAfterMm: number;
}

/** Scales and turns come before the offsets, but those that multiply the offset too come after. */
function rankOf(setting: MachineSetting): number {
  if (isOffset(setting)) return 1;
  return setting.scalesOffset === 'yes' ? 2 : 0;
}

/** D for a set of values as one map: scales and turns, then offsets, then what multiplies the offsets too. */
export function settingsMap(settings: readonly MachineSetting[], values: readonly number[]): MachineMap {
  const ordered = settings
    .map((setting, i) => ({ setting, value: values[i]! }))
    .sort((a, b) => rankOf(a.setting) - rankOf(b.setting));
  return ordered.reduce<MachineMap>((map, s) => then(map, settingMap(s.setting, s.value)), identity<'machine'>());
}

/** cut1 = D1 D0^-1 cut0 when settings act last, cut0 D0^-1 D1 when they act first. */
export function cutAfter(
  cut0: MachineMap,
  d0: MachineMap,
  d1: MachineMap,
  order: SettingOrder = 'settings-last',
): MachineMap {
  const back = inverseOf(d0);
  return order === 'settings-last' ? then(then(cut0, back), d1) : then(then(d1, back), cut0);
}

/** Setting values by setting id. */
export type SettingValues = Readonly<Record<string, number>>;

export interface PlanOptions {
  readonly order?: SettingOrder;
  /** Values that were in force when the error was measured, by setting id; a setting not named had its present value. */
  readonly atCut?: SettingValues;
}

interface Problem {
  readonly cut0: MachineMap;
  readonly settings: readonly MachineSetting[];
  readonly atCut: readonly number[];
  readonly corners: readonly Point<'machine'>[];
  readonly order: SettingOrder;
}

/** Value of each setting when the error was measured. */
export const valuesAtCut = (settings: readonly MachineSetting[], atCut: SettingValues = {}): readonly number[] =>
  settings.map((s) => atCut[s.id] ?? s.value);

function mapFor({ cut0, settings, atCut, order }: Problem, values: readonly number[]): MachineMap {
  return cutAfter(cut0, settingsMap(settings, atCut), settingsMap(settings, values), order);
}

const cornerErrors = (map: MachineMap, corners: readonly Point<'machine'>[]): readonly number[] =>
  corners.flatMap((p) => [(map.xx - 1) * p.x + map.xy * p.y + map.tx, map.yx * p.x + (map.yy - 1) * p.y + map.ty]);

/** Real values of least squared corner error: Gauss-Newton on a nearly linear problem, six rounds. */
function realOptimum(problem: Problem): readonly number[] {
  let values = problem.atCut;
  for (let round = 0; round < 6; round++) {
    const here = cornerErrors(mapFor(problem, values), problem.corners);
    const slopes = values.map((value, k) => {
      const step = problem.settings[k]!.step;
      const moved = cornerErrors(mapFor(problem, values.with(k, value + step)), problem.corners);
      return moved.map((m, i) => (m - here[i]!) / step);
    });
    const solved = leastSquares(
      matrix(here.length, values.length, (row, column) => slopes[column]![row]!),
      here,
    );
    if (!solved.ok) break;
    values = values.map((value, k) => value - solved.value.parameters[k]!);
  }
  return values;
}

/** Steps about the real optimum that are tried for each setting: fewer when many settings are combined. */
const neighboursFor = (settings: number): readonly number[] => (settings <= 4 ? [-2, -1, 0, 1, 2] : [-1, 0, 1]);

/** All combinations of one choice from each list. */
function combinations(lists: readonly (readonly number[])[]): readonly (readonly number[])[] {
  return lists.reduce<readonly (readonly number[])[]>(
    (all, list) => all.flatMap((chosen) => list.map((next) => [...chosen, next])),
    [[]],
  );
}

/**
 * Values of the given settings, all together, that leave the least worst-corner error: the real optimum, then every
 * combination of displayable values within two steps of it. Settings not given stay; equal results keep the smaller change.
 * Starts from the values in force when the sheet was cut: a setting changed since goes from its present value to the value
 * that the cut asks for, and does not get the error added once more.
 * @param cut0 measured error map in the machine frame about the block's centre. @param corners of the work area, machine frame.
 */
export function planSettings(
  cut0: MachineMap,
  settings: readonly MachineSetting[],
  corners: readonly Point<'machine'>[],
  { order = 'settings-last', atCut = {} }: PlanOptions = {},
): SettingsPlan {
  const worstBeforeMm = largestDisplacement(cut0, corners);
  if (settings.length === 0) return { changes: [], after: cut0, worstBeforeMm, worstAfterMm: worstBeforeMm };
  const problem: Problem = { cut0, settings, atCut: valuesAtCut(settings, atCut), corners, order };
  const wanted = realOptimum(problem);
  const neighbours = neighboursFor(settings.length);
  const candidates = settings.map((s, k) => [...new Set(neighbours.map((n) => onStep(s, wanted[k]! + n * s.step)))]);
  let best: { values: readonly number[]; worst: number; change: number } | null = null;
  for (const values of combinations(candidates)) {
    const worst = largestDisplacement(mapFor(problem, values), corners);
    const change = values.reduce((sum, v, k) => sum + Math.abs(v - settings[k]!.value) / settings[k]!.step, 0);
    const isBetter =
      !best || worst < best.worst - 1e-9 || (Math.abs(worst - best.worst) <= 1e-9 && change < best.change);
    if (isBetter) best = { values, worst, change };
  }
  const { values, worst } = best!;
  return {
    changes: settings.map((setting, k) => changeOf(setting, values[k]!, wanted[k])),
    after: mapFor(problem, values),
    worstBeforeMm,
    worstAfterMm: worst,
  };
}

function changeOf(setting: MachineSetting, after: number, wanted = after): SettingChange {
  const { lowest, highest } = reachOf(setting);
  const isAtLimit = wanted > highest + setting.step / 2 || wanted < lowest - setting.step / 2;
  return { setting, before: setting.value, after, toType: typedFor(setting, after), isAtLimit };
}

/** Changes that bring settings back to the values in force at the cut; no direction need be known for it. */
export const setBack = (settings: readonly MachineSetting[], atCut: SettingValues): readonly SettingChange[] =>
  settings
    .filter((s) => atCut[s.id] !== undefined && atCut[s.id] !== s.value)
    .map((s) => {
      const wanted = atCut[s.id] ?? s.value;
      // A wizard goes back as far as its row reaches: the rest takes another run.
      return changeOf(s, s.kind === 'wizard' ? onStep(s, wanted) : wanted, wanted);
    });

/**
 * Map that takes a cut made with some values to the same cut made with others, settings acting last: D1 D0^-1. Null when a
 * setting that differs has no known direction.
 */
export function carriedTo(
  settings: readonly MachineSetting[],
  from: SettingValues,
  to: SettingValues,
): MachineMap | null {
  const differing = settings.filter((s) => (from[s.id] ?? s.value) !== (to[s.id] ?? s.value));
  if (differing.some((s) => s.sense === null)) return null;
  const known = settings.filter((s) => s.sense !== null);
  return cutAfter(
    identity<'machine'>(),
    settingsMap(known, valuesAtCut(known, from)),
    settingsMap(known, valuesAtCut(known, to)),
  );
}
