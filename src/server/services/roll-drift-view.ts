import 'server-only';
import {
  rollDrift,
  type DirectionDrift,
  type DriftPart,
  type RollDrift,
  type RollProblem,
} from '@/core/drift/roll-drift';
import { driftBand } from '@/core/drift/drift-band';
import { noiseInterval } from '@/core/drift/noise-interval';
import { LEAST_REWINDS, rewindScatter } from '@/core/drift/rewind-scatter';
import type { Result } from '@/core/result';
import { slotName } from '@/core/target/roll-strip';
import type { Axis } from '@/core/target/wedge';
import { formatFixed, formatLength, type UnitSystem } from '@/core/units/length';
import { rollEndMm, type RollRecord } from './roll-read';

export const driftOf = ({ values }: RollRecord): Result<RollDrift, RollProblem> => rollDrift(values);

export function rollProblemWords(problem: RollProblem): string {
  if (problem.kind === 'too-few-readings')
    return `At least ${problem.needed} readings across and ${problem.needed} along are needed before drift can be told from noise.`;
  if (problem.kind === 'no-length') return 'All that was read stands at the leading edge: read further along.';
  return 'These readings stand too close together to tell a steady drift: read at four places along the roll or more.';
}

/** As far as charts look: the run, and half as far again beyond what was read. */
const chartEndMm = (record: RollRecord, drift: RollDrift): number =>
  Math.max(rollEndMm(record.roll), 1.5 * drift.lengthMm);

/** Feed is what most rolls suffer from: along comes first. */
const DOWN_THE_PAGE = ['along', 'across'] as const;

/** Both directions of a roll as they are drawn. */
export function chartsOf(record: RollRecord, drift: RollDrift) {
  const endMm = chartEndMm(record, drift);
  return DOWN_THE_PAGE.map((axis) => ({
    title: TITLES[axis],
    stations: stationsOf(record, axis),
    band: driftBand(drift[axis], endMm),
    readToMm: drift.lengthMm,
    endMm,
    toleranceMm: record.roll.toleranceMm,
  }));
}

const TITLES: Readonly<Record<Axis, string>> = {
  along: 'Along: how far the cut runs on past the print',
  across: 'Across: how far the cut lies to the right of the print',
};

/** Readings of one direction as they are, the nearest first: also before anything can be told from them. */
export function stationsOf({ figures, readings }: RollRecord, axis: Axis) {
  return figures.flatMap((figure) => {
    const valueMm = readings.get(slotName(figure))?.displacementMm;
    if (figure.axis !== axis || valueMm === null || valueMm === undefined) return [];
    return [{ stationNo: figure.stationNo, side: figure.side, atMm: figure.middle.y, valueMm }];
  });
}

export interface PartRow {
  readonly name: string;
  readonly value: string;
  readonly interval: string;
  readonly farEnd: string;
  readonly words: string;
}

interface PartOrder {
  readonly name: string;
  readonly part: DriftPart | null;
  readonly write: (value: number) => string;
  readonly words: string;
}

const rate = (mm: number): string => `${formatFixed(mm, 3, true)} mm/m`;
const bend = (mm: number): string => `${formatFixed(mm, 4, true)} mm/m\u00b2`;
const milliradian = (rad: number): string => `${formatFixed(1000 * rad, 2, true)} mrad`;

function rowOf({ name, part, write, words }: PartOrder, system: UnitSystem): PartRow {
  if (!part)
    return { name, value: 'not told', interval: '', farEnd: '', words: 'read left and right to tell it from a walk' };
  return {
    name,
    value: write(part.value),
    interval: `${write(part.low)} to ${write(part.high)}`,
    farEnd: formatLength(part.atFarEndMm, system, true),
    words,
  };
}

function slipRow(name: string, { slip }: DirectionDrift, lengthMm: number, system: UnitSystem): PartRow {
  const root = Math.sqrt(lengthMm / 1000);
  return {
    name,
    value: slip.slipMm > 0 ? `${formatFixed(slip.slipMm, 3)} mm over 1 m` : 'none seen',
    interval: `below ${formatFixed(slip.slipUpperMm, 3)} mm over 1 m`,
    farEnd: `up to ${formatLength(1.96 * slip.slipUpperMm * root, system)}`,
    words: 'goes either way and grows with the root of the way; nothing keyed in takes it out',
  };
}

/** Two standard deviations, near enough, either way. */
const SIDE_95 = 1.96;

function noiseRow(name: string, { noiseMm, belief }: DirectionDrift, system: UnitSystem): PartRow {
  const { lowMm, highMm } = noiseInterval(belief);
  return {
    name,
    value: `${formatFixed(noiseMm, 3)} mm`,
    interval: `${formatFixed(lowMm, 3)} to ${formatFixed(highMm, 3)} mm`,
    farEnd: `${formatLength(SIDE_95 * noiseMm, system)} either way`,
    words: 'one reading\u2019s own scatter: the eye, the edge of ink and cut; the same all along',
  };
}

/** What an origin scatters by from rewind to rewind, where it was measured for the sections. */
function rewindRow(shiftsMm: readonly number[], system: UnitSystem): PartRow {
  const told = rewindScatter(shiftsMm);
  const name = 'Rewind shift';
  if (!told.ok)
    return {
      ...{ name, value: 'not told', interval: '', farEnd: '' },
      words: `one strip cannot tell it: rewind ${LEAST_REWINDS} times or more, under Sections`,
    };
  const { sdMm, sdUpperMm, nextSdMm } = told.value;
  return {
    name,
    value: `${formatFixed(sdMm, 3)} mm`,
    interval: `below ${formatFixed(sdUpperMm, 3)} mm`,
    farEnd: `${formatLength(SIDE_95 * nextSdMm, system)} either way`,
    words: 'a shift of its own after every rewind, the same all along until the next: marks take it out',
  };
}

/** Every part of the drift, what it is worth at the far end of what was read, and what it is. */
export function partRows(drift: RollDrift, rewindShiftsMm: readonly number[], system: UnitSystem): readonly PartRow[] {
  const { along, across, walkMm, lengthMm } = drift;
  const mm = (value: number): string => formatLength(value, system, true);
  const orders: readonly PartOrder[] = [
    { name: 'Shift along', part: along.shiftMm, write: mm, words: 'the same all along: the origin, or the offset' },
    { name: 'Shift across', part: across.shiftMm, write: mm, words: 'the same all along: the origin, or the offset' },
    {
      name: 'Feed',
      part: along.perMetreMm,
      write: rate,
      words: 'the cutter\u2019s feed against the print\u2019s: keyed in',
    },
    {
      name: 'Walk',
      part: walkMm,
      write: rate,
      words: 'the roll wanders sideways, apart from lying turned: tension, rollers',
    },
    { name: 'Turn', part: along.perWidth, write: milliradian, words: 'the roll lies turned: loading' },
    {
      name: 'Width',
      part: across.perWidth,
      write: milliradian,
      words: 'the cut is wider (plus) than the print: scale across, in \u2030',
    },
    { name: 'Bow across', part: across.bow, write: bend, words: 'the walk itself changes: in the cut file' },
    {
      name: 'Bow along',
      part: along.bow,
      write: bend,
      words: 'the feed itself changes: roll getting smaller, motor warming up; in the cut file',
    },
  ];
  return [
    ...orders.map((order) => rowOf(order, system)),
    slipRow('Slip along', along, lengthMm, system),
    slipRow('Slip across', across, lengthMm, system),
    rewindRow(rewindShiftsMm, system),
    noiseRow('Noise along', along, system),
    noiseRow('Noise across', across, system),
  ];
}

/** What a ruled length says of the print itself, and so of printer and cutter apart. */
export function stretchWords({ roll }: RollRecord, drift: RollDrift): string | null {
  if (roll.ruledMm === null || roll.ruledNominalMm === null) return null;
  const nominalMm = roll.ruledNominalMm;
  const longBy = (mm: number): number => 1000 * (mm / nominalMm - 1);
  const says = (mm: number): string => `${formatFixed(Math.abs(mm), 2)} mm/m too ${mm < 0 ? 'short' : 'long'}`;
  const print = longBy(roll.ruledMm);
  const whenCut = longBy(roll.ruledLaminatedMm ?? roll.ruledMm);
  const cutter = whenCut + drift.along.perMetreMm.value;
  const told = `By rule the print is ${says(print)}`;
  const judged = `the cutter by itself is ${says(cutter)}. Put right whichever machine other work rests on.`;
  if (roll.ruledLaminatedMm === null) return `${told}; with the feed above ${judged}`;
  const film = whenCut - print;
  const does = `${film < 0 ? 'shrank' : 'stretched'} it by ${formatFixed(Math.abs(film), 2)} mm/m, ${formatLength((Math.abs(film) * drift.lengthMm) / 1000, 'mm')} at the far end`;
  return `${told}; lamination ${does}. That is the print\u2019s, not the cutter\u2019s: with it and the feed above ${judged} Print as much ${film < 0 ? 'longer' : 'shorter'}, or keep the feed for laminated work alone.`;
}
