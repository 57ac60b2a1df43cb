import { CODE_WORDS } from './code-book';
import { SMALL_DISC_MM, SMALL_HOLE_MM, type DiscFigure } from './disc';
import { sideAtMm, stationAtMm, type RollStrip, type StripSide } from './roll-strip';

/** A coded disc of a roll's station: what a scan of cut-off pieces measures. */
export interface StationDisc extends Omit<DiscFigure, 'setNo' | 'spotNo'> {
  readonly stationNo: number;
  readonly side: StripSide;
}

/** The disc's middle from its station's own: beside the wedges, clear of number and arrow. */
const FROM_MIDDLE = { x: -12, y: 15 };

/** One side of a station. */
export type StationPlace = Pick<StationDisc, 'stationNo' | 'side'>;

/** Words of the book begin again after so many stations. */
export const codeCycle = ({ sides }: Pick<RollStrip, 'sides'>): number => Math.floor(CODE_WORDS.length / sides.length);

/** A copied piece is the same every time: its words tell the side alone. */
function codeNoOf(strip: RollStrip, { stationNo, side }: StationPlace): number {
  const cycleNo = strip.form === 'piece' ? 0 : (stationNo - 1) % codeCycle(strip);
  return cycleNo * strip.sides.length + strip.sides.indexOf(side);
}

export function stationDiscOf(strip: RollStrip, place: StationPlace): StationDisc {
  const { stationNo, side } = place;
  return {
    ...{ kind: 'disc', stationNo, side, radiusMm: SMALL_DISC_MM, cut: 'hole', holeRadiusMm: SMALL_HOLE_MM },
    codeNo: codeNoOf(strip, place),
    centre: { x: sideAtMm(strip, side) + FROM_MIDDLE.x, y: stationAtMm(strip, stationNo) + FROM_MIDDLE.y },
  };
}

/** A station's discs, from the left; none where the strip has none. */
export const stationDiscs = (strip: RollStrip, stationNo: number): readonly StationDisc[] =>
  strip.hasDiscs ? strip.sides.map((side) => stationDiscOf(strip, { stationNo, side })) : [];

/** Words that a strip's discs show. */
export const stripCodes = (strip: RollStrip): readonly number[] => {
  const stations = strip.form === 'piece' ? 1 : Math.min(strip.stations, codeCycle(strip));
  return Array.from({ length: stations * strip.sides.length }, (_, i) => i);
};

/**
 * Which place a word stands at.
 * @param fromNo no station before it is meant: words begin again on a long strip.
 * @returns null where the strip has no such word from there on. A copied piece tells its side alone: its station is `fromNo`.
 */
export function placeOfCode(strip: RollStrip, codeNo: number, fromNo: number): StationPlace | null {
  const side = strip.sides[codeNo % strip.sides.length];
  const inCycle = Math.floor(codeNo / strip.sides.length);
  if (side === undefined) return null;
  if (strip.form === 'piece') return inCycle === 0 && fromNo <= strip.stations ? { stationNo: fromNo, side } : null;
  const cycle = codeCycle(strip);
  if (inCycle >= cycle) return null;
  const stationNo = inCycle + 1 + cycle * Math.max(0, Math.ceil((fromNo - inCycle - 1) / cycle));
  return stationNo <= strip.stations ? { stationNo, side } : null;
}
