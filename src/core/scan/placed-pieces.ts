import type { RollStrip } from '../target/roll-strip';
import { placeOfCode, type StationPlace } from '../target/station-disc';
import { fromPieceKey } from './measure-pieces';
import type { ScanResult } from './scan-result';

/** Which stations a scan's pieces come from. */
export interface PiecesFrom {
  /** The first of them; on a strip whose words begin again no station before it is meant. */
  readonly firstNo: number;
  /** Of copied pieces, in reading order: from one to the next. */
  readonly every: number;
}

/** Name of a place that a disc stands at. */
export const placeName = ({ stationNo, side }: StationPlace): string => `${stationNo} ${side}`;

/**
 * Where discs belong, by their words; copied pieces, which all show the same, by their order.
 * @param keys as `measurePieces` names them, in reading order.
 * @returns a place each; null where the roll has none such.
 */
export function placesOf(
  strip: RollStrip,
  keys: readonly string[],
  { firstNo, every }: PiecesFrom,
): readonly (StationPlace | null)[] {
  const seen = new Map<number, number>();
  return keys.map((key) => {
    const { codeNo } = fromPieceKey(key);
    if (strip.form === 'strip') return placeOfCode(strip, codeNo, firstNo);
    const before = seen.get(codeNo) ?? 0;
    seen.set(codeNo, before + 1);
    return placeOfCode(strip, codeNo, firstNo + before * every);
  });
}

/** A scan of pieces with its discs known by their places, so that scans of the same pieces can be taken together. */
export function placed(strip: RollStrip, result: ScanResult, from: PiecesFrom): ScanResult {
  const places = placesOf(
    strip,
    result.discs.map((d) => d.key),
    from,
  );
  return {
    ...result,
    discs: result.discs.flatMap((disc, i) => {
      const place = places[i];
      return place ? [{ ...disc, key: placeName(place) }] : [];
    }),
  };
}
