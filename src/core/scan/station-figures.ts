import { inkFromMm } from '../target/disc';
import type { RollStrip } from '../target/roll-strip';
import { stationDiscOf, stripCodes } from '../target/station-disc';
import type { ScanFigure } from './measured-figure';

/** What a scan of a roll's pieces is searched for: one figure for every word of its discs. */
export function stationFigures(strip: RollStrip): readonly ScanFigure[] {
  const [side = 'left'] = strip.sides;
  const disc = stationDiscOf(strip, { stationNo: 1, side });
  const { radiusMm, holeRadiusMm, centre } = disc;
  return stripCodes(strip).map((codeNo) => ({
    ...{ key: String(codeNo), codeNo, centre, radiusMm, inkFromMm: inkFromMm(disc) },
    ...{ cutShape: disc.cut, cutRadiusMm: holeRadiusMm },
  }));
}
