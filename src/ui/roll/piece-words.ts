import { isMeasured, type DiscState } from '@/core/scan/disc-measure';
import type { CombinedScans } from '@/core/scan/combine-scans';
import type { ScanResult } from '@/core/scan/scan-result';
import { formatFine, MM_PER_INCH, type UnitSystem } from '@/core/units/length';
import type { ScanFailure } from '@/workers/scan.client';
import { failureWords, SIDE_95 } from '../scan/scan-words';
import { stateWords } from '../scan/state-words';

/** Why a scan of pieces could not be measured, and what to do. */
export function pieceFailureWords(failure: ScanFailure): string {
  if (!('kind' in failure)) return failureWords(failure);
  if (failure.kind === 'no-discs')
    return 'No coded disc was found in it. Lay the pieces printed face to the glass, their rounds weeded, and scan at 300 dpi.';
  if (failure.kind === 'other-pieces')
    return 'Its discs are not those of this strip: take the pieces that were cut for it.';
  return failureWords(failure);
}

/** What to do about a disc, where it tells nothing: on a roll a cut may well have run out of its disc. */
export function pieceTodo(state: DiscState): string {
  const { todo } = stateWords(state, 'hole');
  return state === 'not-weeded' || state === 'bad-cut'
    ? `${todo} Where the cut lies more than 3 mm off its disc\u2019s middle, key in the feed of the first stations and cut another strip.`
    : todo;
}

/** A scan of pieces in a line. */
export function piecesLine({ pixelsPerMm, discs }: ScanResult): string {
  const good = discs.filter((d) => isMeasured(d.state)).length;
  return `${Math.round(pixelsPerMm * MM_PER_INCH)} dpi: ${good} of ${discs.length} discs measured.`;
}

/** Above this the shadow is not known from scans that lay differently, mm. */
const STILL_SHADOWED_MM = 0.006;

/** What scans of pieces cannot know, and what another would tell. */
export function pieceDoubtWords({ shadowSdMm }: CombinedScans, system: UnitSystem): string {
  if (shadowSdMm <= STILL_SHADOWED_MM)
    return 'These pieces were scanned lying differently: taken together they are free of the lamp\u2019s shadow in their holes.';
  const doubt = formatFine(SIDE_95 * shadowSdMm, system);
  return `The lamp\u2019s shadow in the holes moves pieces that lie the same way alike: up to ${doubt}. It is taken for a constant shift and leaves feed and slip as they are. Turn all of them by half and scan once more: that doubt goes.`;
}
