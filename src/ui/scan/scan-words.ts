import type { CombinedScans, ScannedDisc } from '@/core/scan/combine-scans';
import { isMeasured, type DiscState } from '@/core/scan/disc-measure';
import type { ScanResult } from '@/core/scan/measure-scan';
import { formatFixed, MM_PER_INCH, type UnitSystem } from '@/core/units/length';
import type { ScanFailure } from '@/workers/scan.client';

/** What was found of a disc, and what to do about it. */
export const STATE_WORDS: Readonly<Record<DiscState, { readonly name: string; readonly todo: string }>> = {
  good: { name: 'good', todo: '' },
  partial: { name: 'partial', todo: 'Part of an edge is hidden: it counts with a larger doubt of its own.' },
  'not-weeded': { name: 'not weeded', todo: 'Lift the round piece out, or lay white card behind, and scan again.' },
  'bad-cut': { name: 'bad cut', todo: 'The hole is not round or not whole: look at the blade and its offset.' },
  missing: { name: 'missing', todo: 'Not in the picture, torn or covered: scan it again, or leave it.' },
};

/** Why a scan could not be measured, and what to do. */
export function failureWords(failure: ScanFailure): string {
  switch (failure.kind) {
    case 'no-discs':
      return 'No coded disc was found in it. Is it this check\u2019s sheet, in focus, and lit? Scan it once more at 300 dpi.';
    case 'no-page':
      return failure.decoded.length < 3
        ? `Only ${failure.decoded.length === 1 ? 'one coded disc' : `${failure.decoded.length} coded discs`} could be read; three are needed. Scan the whole sheet, flat and in focus.`
        : 'Its coded discs are not those of this check: it is another check\u2019s sheet, or another print of one. Take the sheet that was cut for this check.';
    case 'two-sheets':
      return 'There are two sheets of this check in it. Scan one at a time.';
    case 'not-flat':
      return `Its printed discs lie up to ${fineLength(failure.typicalMm, 'mm')} mm from where a flat sheet has them: it is curled, or too little of it is in a photograph. Lay it flat; scan it with the lid closed, or photograph the whole of it.`;
    case 'too-coarse':
      return `It has only ${Math.round(failure.dotsPerInch)} dots an inch: at least 150 are needed, 300 are right.`;
    case 'not-a-picture':
    case 'too-large':
    case 'damaged':
    case 'not-supported':
      return failure.words;
  }
}

/** Lengths of a scan are finer than those shown elsewhere. */
export const fineLength = (mm: number, system: UnitSystem, isSigned = false): string => {
  const sign = isSigned && mm > 0 ? '+' : '';
  const words = system === 'mm' ? formatFixed(mm, 3) : formatFixed(mm / MM_PER_INCH, 4);
  return `${sign}${words}`;
};

/** 95 % of a normal distribution. */
export const SIDE_95 = 1.96;

function directionWords(travel: ScanResult['travel']): string {
  return Math.abs(travel.x) > Math.abs(travel.y) ? 'across the sheet' : 'along the sheet';
}

/** What a photograph is worth. */
function photoWords(count: number, doubt: string): string {
  const what = `Measured from a photograph: approximate. What lies below the film shows beside the rim of a hole, and light comes from one side: up to ${doubt}, the same at every disc.`;
  return count < 2
    ? `${what} A second photograph with sheet or camera turned by half makes that smaller; a scanner does away with it.`
    : `${what} Make one more the other way round if these were taken from the same side; a scanner does better.`;
}

/** What these scans cannot know, and what another would tell. */
export function doubtWords(
  scans: readonly Pick<ScanResult, 'travel'>[],
  { kind, shadowSdMm, shadowMm }: CombinedScans,
  system: UnitSystem,
): string {
  const unit = system === 'mm' ? 'mm' : 'in';
  const size = (mm: number): string => `${fineLength(mm, system)} ${unit}`;
  const [first] = scans;
  if (kind === 'photo') return photoWords(scans.length, size(SIDE_95 * shadowSdMm));
  if (scans.length < 2 && first)
    return `One scan cannot tell its lamp\u2019s shadow in the holes from a shift: up to ${size(SIDE_95 * shadowSdMm)} ${directionWords(first.travel)}, the same at every disc. Turn the sheet by a quarter (or by half, where it does not fit) and scan once more: that doubt goes.`;
  if (shadowSdMm > 0.006)
    return `These scans lie the same way, so that the lamp\u2019s shadow stays in doubt: up to ${size(SIDE_95 * shadowSdMm)}. Turn the sheet by a quarter or by half for the next one.`;
  return `The lamp\u2019s shadow moved each of these scans by ${size(Math.abs(shadowMm))}; taken together they are free of it.`;
}

/** Scans that differ by more than they should: where, and what to do. Null where they agree. */
export function oddsWords(
  { atOdds }: Pick<CombinedScans, 'atOdds'>,
  own: readonly { readonly key: string; readonly spotNo: number }[],
): string | null {
  if (!atOdds) return null;
  const spot = own.find(({ key }) => key === atOdds.key);
  const where = spot ? `, most at spot ${spot.spotNo}` : '';
  return `These scans differ by ${formatFixed(atOdds.factor, 1)} times what they should${where}: a hair, a piece lifted in only one of them, or a sheet that did not lie flat. Their doubt was made as much larger. Look at that disc in each, take the odd scan away, or scan once more.`;
}

/** Printed, but no hole in any disc of the cut: what that may mean. Null where there is one. */
export function noHolesWords(
  discs: readonly Pick<ScannedDisc, 'key' | 'state'>[],
  ownKeys: ReadonlySet<string>,
): string | null {
  const own = discs.filter((d) => ownKeys.has(d.key) && d.state !== 'missing');
  if (own.length === 0 || own.some((d) => d.state !== 'not-weeded')) return null;
  return 'No disc of this cut shows an open hole. Lift the round pieces out, and lay white card behind if what lies there is dark. A picture of the print alone, or of the sheet before it was cut, tells nothing.';
}

/** Beyond this a camera sees too much of what lies below a hole's rim. */
const MOST_TILT_DEG = 22;

/** A scan in a line: how it lay, how fine it is. */
export function scanLine(
  { kind, tiltRad, pixelsPerMm, turnDeg, isMirrored, discs }: ScanResult,
  ownKeys: ReadonlySet<string>,
): string {
  const own = discs.filter((d) => ownKeys.has(d.key));
  const good = own.filter((d) => isMeasured(d.state)).length;
  const side = isMirrored ? ', seen from behind' : '';
  const tiltDeg = Math.round((tiltRad * 180) / Math.PI);
  const aslant = tiltDeg > MOST_TILT_DEG ? ' Hold the camera straighter above the sheet.' : '';
  if (kind === 'photo')
    return `photograph, ${tiltDeg}\u00b0 from straight above${side}: ${good} of ${own.length} discs measured, approximately.${aslant}`;
  const coarse = pixelsPerMm * MM_PER_INCH < 195 ? ' Coarse: 300 dpi is right.' : '';
  return `${Math.round(pixelsPerMm * MM_PER_INCH)} dpi, turned by ${turnDeg}\u00b0${side}: ${good} of ${own.length} discs measured.${coarse}`;
}
