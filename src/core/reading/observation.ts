import { apply, displacement, then, inverseOf, type Affine, type Point } from '../geometry/affine';
import { sheetToMachine, type Load } from '../geometry/load';
import { COMB_READ_W, combAnswers, combToSheet, nearestAnswer, type CombPlace } from '../target/comb';
import { meetingPointMm, type Axis, type WedgePlace } from '../target/wedge';

/** One measured component of the error at one place: what the fit takes. */
export interface Observation {
  readonly id: string;
  readonly axis: Axis;
  /** Commanded place the value belongs to, sheet frame, mm. */
  readonly at: Point;
  readonly valueMm: number;
  readonly standardUncertaintyMm: number;
  /** Readings of one load share that load's noise. */
  readonly loadKey: string;
  /** The cutter came to this place from one side (+1 or -1, of its own axis); absent where it makes no difference. */
  readonly approach?: 1 | -1;
  /** An effect that readings of one key share: what one standard deviation of it moves this value by. */
  readonly shared?: { readonly key: string; readonly mm: number };
}

interface SetReading {
  readonly id: string;
  readonly readingMm: number;
  readonly standardUncertaintyMm: number;
  readonly loadKey: string;
  /** How the sheet lay when this set was cut. */
  readonly load: Load;
  /** Shift that the file carried for this set, taken out again. */
  readonly fileShift: Point;
  /** Takes this set's cut to where the machine's reference settings would have put it; absent: it was cut with those. */
  readonly toReference?: Affine<'machine', 'machine'>;
}

/** Reading: what the operator matched, (h - u) / h, before the dither is taken out. */
export interface WedgeReading extends SetReading {
  readonly kind: 'wedge';
  readonly place: WedgePlace;
}

/**
 * Reading: how far a round cut lies off its printed disc along one axis. Rim: half the difference of what is clear outside
 * the print. Wall: half the difference of the ink left round a hole in it. Scan: between the two circles in a picture of it.
 */
export interface RoundReading extends SetReading {
  readonly kind: 'rim' | 'wall' | 'scan';
  readonly axis: Axis;
  /** Middle of the printed figure. */
  readonly centre: Point;
  /** Of a scan: what its lamp's shadow may have moved every disc by. */
  readonly shared?: Observation['shared'];
}

/** Reading: the shift of the ticks that run into one line, or the half between two. */
export interface CombReading extends SetReading {
  readonly kind: 'comb';
  readonly place: CombPlace;
}

export type FigureReading = WedgeReading | CombReading | RoundReading;

/**
 * Displacement of a cut from its print by the rims left outside a printed figure: (rim on the plus side - rim on the minus
 * side) / 2. Ink gain, kerf and the traced outline's size change both rims alike and fall out.
 * Common practice, no published source.
 */
export const rimDisplacement = (minusSideMm: number, plusSideMm: number): number => (plusSideMm - minusSideMm) / 2;

/**
 * Displacement of a hole from its printed disc by the walls of ink left round it: (wall on the minus side - wall on the plus
 * side) / 2; a hole that lies to the plus side leaves the thicker wall on the other. Ink gain and kerf fall out.
 * Common practice, no published source.
 */
export const wallDisplacement = (minusSideMm: number, plusSideMm: number): number => (minusSideMm - plusSideMm) / 2;

/** Displacement of the cut against the nominal print: the reading plus the ink's own displacement. */
export const wedgeDisplacement = (reading: WedgeReading): number => reading.readingMm + reading.place.ditherMm;

/**
 * A wedge reading as an observation. It belongs to the meeting point, not to the figure's middle: along the strip, what
 * is seen at ink place q was commanded at q - d(q) (`mapSoFar`). Across the strip, the file carried the figure's line
 * moved by its shift s; the cut's displacement from where it was commanded is the reading less s.
 */
function wedgeObservation(reading: WedgeReading, mapSoFar: Affine): Observation {
  const { place, fileShift } = reading;
  const u = meetingPointMm(place.halfLengthMm, reading.readingMm);
  const isAlong = place.axis === 'along';
  const ink: Point = isAlong
    ? { x: place.origin.x + u, y: place.origin.y }
    : { x: place.origin.x, y: place.origin.y - u };
  const commanded = { x: ink.x + fileShift.x, y: ink.y + fileShift.y };
  const d = displacement(mapSoFar, commanded);
  const at: Point = isAlong ? { x: ink.x - d.x, y: commanded.y } : { x: commanded.x, y: ink.y - d.y };
  const shift = isAlong ? fileShift.y : fileShift.x;
  return {
    id: reading.id,
    axis: place.axis,
    at,
    valueMm: wedgeDisplacement(reading) - shift,
    standardUncertaintyMm: reading.standardUncertaintyMm,
    loadKey: reading.loadKey,
  };
}

/**
 * A comb reading belongs to the tick that is in line: commanded where the file put that tick along the row, and across
 * the row where it is compared.
 */
function combObservation(reading: CombReading, mapSoFar: Affine): Observation {
  const { place, fileShift, readingMm } = reading;
  const { commandedMm } = nearestAnswer(combAnswers(place), readingMm);
  const ink = combToSheet(place, { s: commandedMm, w: COMB_READ_W });
  const commanded = { x: ink.x + fileShift.x, y: ink.y + fileShift.y };
  const d = displacement(mapSoFar, commanded);
  const isAlong = place.axis === 'along';
  // A tick is straight: where it crosses the printed row, it was commanded its own shift earlier.
  const at: Point = isAlong ? { x: ink.x - d.x, y: commanded.y } : { x: commanded.x, y: ink.y - d.y };
  return {
    id: reading.id,
    axis: place.axis,
    at,
    valueMm: readingMm - (isAlong ? fileShift.y : fileShift.x),
    standardUncertaintyMm: reading.standardUncertaintyMm,
    loadKey: reading.loadKey,
    approach: place.approach,
  };
}

/** A rim or wall reading belongs to the printed figure's middle, moved by what the file carried. */
function roundObservation(reading: RoundReading): Observation {
  const { axis, centre, fileShift } = reading;
  return {
    id: reading.id,
    axis,
    at: { x: centre.x + fileShift.x, y: centre.y + fileShift.y },
    valueMm: reading.readingMm - (axis === 'along' ? fileShift.y : fileShift.x),
    standardUncertaintyMm: reading.standardUncertaintyMm,
    loadKey: reading.loadKey,
    ...(reading.shared && { shared: reading.shared }),
  };
}

/** A reading as the fit takes it: where it belongs and how far the cut is off there. */
export function observationOf(reading: FigureReading, mapSoFar: Affine): Observation {
  switch (reading.kind) {
    case 'wedge':
      return wedgeObservation(reading, mapSoFar);
    case 'comb':
      return combObservation(reading, mapSoFar);
    case 'wall':
    case 'rim':
    case 'scan':
      return roundObservation(reading);
  }
}

/** Turn (and mirror image) that takes sheet points under one load to those of a sheet lying otherwise, same machine place. */
export function betweenLoads(from: Load, to: Load): Affine {
  return then(sheetToMachine(from), inverseOf(sheetToMachine(to)));
}

/**
 * The same observation told in the sheet frame of another load: quarter turns swap components and signs, nothing else. The
 * side that the cutter came from turns about with the component.
 */
export function observationUnder(o: Observation, from: Load, to: Load): Observation {
  const turn = betweenLoads(from, to);
  const isSwapped = turn.xx === 0;
  const sign = o.axis === 'across' ? turn.xx + turn.yx : turn.xy + turn.yy;
  const other = o.axis === 'across' ? 'along' : 'across';
  return {
    ...o,
    at: apply(turn, o.at),
    axis: isSwapped ? other : o.axis,
    valueMm: sign * o.valueMm,
    ...(o.approach !== undefined && { approach: sign * o.approach > 0 ? 1 : -1 }),
    ...(o.shared && { shared: { key: o.shared.key, mm: sign * o.shared.mm } }),
  };
}
