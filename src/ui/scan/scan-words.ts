import type { CombinedScans, ScannedDisc } from '@/core/scan/combine-scans';
import { isMeasured } from '@/core/scan/disc-measure';
import type { ScanResult } from '@/core/scan/scan-result';
import type { TurnDeg } from '@/core/geometry/load';
import type { CutShape } from '@/core/target/coded-figure';
import { formatFine, formatFixed, MM_PER_INCH, type UnitSystem } from '@/core/units/length';
import type { ScanFailure } from '@/workers/scan.client';
import type { ScanView } from './scan-view';
import { figureWord } from './state-words';

const ownSheet = (code: string | undefined): string =>
  code === undefined ? 'the sheet that was cut for this check' : `sheet ${code}`;

function noPageWords(decoded: number, code: string | undefined): string {
  if (decoded >= 3) return `Its coded discs are not those of this sheet: it is another sheet. Scan ${ownSheet(code)}.`;
  const count = decoded === 1 ? 'one coded disc' : `${decoded} coded discs`;
  return `Only ${count} could be read; three are needed. Scan the whole sheet, flat and in focus.`;
}

/**
 * Why a scan could not be measured, and what to do.
 * @param code of the sheet that should lie there, where it has one.
 */
export function failureWords(failure: ScanFailure, code?: string): string {
  if ('words' in failure) return failure.words;
  switch (failure.kind) {
    case 'no-discs':
      return 'No coded disc was found in it. Is it this check\u2019s sheet, in focus, and lit? Scan it once more at 300 dpi.';
    case 'no-page':
      return noPageWords(failure.decoded.length, code);
    case 'other-sheet':
      return `This is sheet ${failure.code}. Nothing was measured. Scan ${ownSheet(code)}.`;
    case 'two-sheets':
      return 'There are two sheets of this check in it. Scan one at a time.';
    case 'not-flat':
      return `Its printed discs lie up to ${formatFine(failure.typicalMm, 'mm')} from where a flat sheet has them: it is curled, or too little of it is in a photograph. Lay it flat; scan it with the lid closed, or photograph the whole of it.`;
    case 'other-pieces':
      return 'There are discs of another check, or of another print, in it. Take them away and scan those of this cut alone.';
    case 'pieces-aslant':
      return 'Its pieces are seen in different sizes: it is a photograph, or one of them does not lie flat. Loose pieces are measured on a scanner; press them flat under the card.';
    case 'too-coarse':
      return `It has only ${Math.round(failure.dotsPerInch)} dots an inch: at least 150 are needed, 300 are right.`;
  }
}

/** Where discs are printed on both faces: why a scan does not show the one asked for. Null where it does. */
export function faceWords(
  { isMirrored, isMixed }: Pick<ScanResult, 'isMirrored' | 'isMixed'>,
  { face, isFaceTold }: Pick<ScanView, 'face' | 'isFaceTold'>,
): string | null {
  if (!isFaceTold) return null;
  if (isMixed) return `Some discs show their front and some their back. Lay all of them with the ${face} to the lamp.`;
  if (isMirrored === (face === 'back')) return null;
  return `These are the discs\u2019 ${face === 'back' ? 'fronts' : 'backs'}. Turn each of them over and scan again.`;
}

/** 95 % of a normal distribution. */
export const SIDE_95 = 1.96;

const directionWords = (turnDeg: TurnDeg): string => (turnDeg % 180 === 90 ? 'across the sheet' : 'along the sheet');

/** What a photograph is worth. */
function photoWords(count: number, doubt: string): string {
  const what = `Measured from a photograph: approximate. What lies below the film shows beside the rim of a hole, and light comes from one side: up to ${doubt}, the same at every disc.`;
  return count < 2
    ? `${what} A second photograph with sheet or camera turned by half makes that smaller; a scanner does away with it.`
    : `${what} Make one more the other way round if these were taken from the same side; a scanner does better.`;
}

/** Above this the shadow is not known from scans that lay differently, mm. */
const STILL_SHADOWED_MM = 0.006;

/** What scans of loose pieces cannot know. */
function looseWords(count: number, isShadowed: boolean, doubt: string): string {
  if (!isShadowed)
    return 'The pieces lay differently in these scans: taken together they are free of the lamp\u2019s shadow at their edges.';
  const how = count < 2 ? 'One scan' : 'Scans in which the pieces lie the same way';
  return `${how} cannot tell the lamp\u2019s shadow at a piece\u2019s edge from a shift: up to ${doubt} along the carriage\u2019s travel. Pieces that lie each its own way even much of it out. Turn every disc by about a quarter or by half and scan once more: that doubt goes.`;
}

/** What these scans cannot know, and what another would tell. */
export function doubtWords(
  scans: readonly Pick<ScanResult, 'turnDeg' | 'cutShape'>[],
  { kind, shadowSdMm, shadowMm }: CombinedScans,
  system: UnitSystem,
): string {
  const size = (mm: number): string => formatFine(mm, system);
  const [first] = scans;
  if (kind === 'photo') return photoWords(scans.length, size(SIDE_95 * shadowSdMm));
  if (first?.cutShape === 'line')
    return 'A line on the surface casts no shadow: one scan tells the shift. The scanner\u2019s uneven travel is in each ring\u2019s doubt; another scan with the sheet turned by a quarter makes it smaller.';
  if (first?.turnDeg === null)
    return looseWords(scans.length, shadowSdMm > STILL_SHADOWED_MM, size(SIDE_95 * shadowSdMm));
  if (scans.length < 2 && first)
    return `One scan cannot tell its lamp\u2019s shadow in the holes from a shift: up to ${size(SIDE_95 * shadowSdMm)} ${directionWords(first.turnDeg)}, the same at every disc. Turn the sheet by a quarter (or by half, where it does not fit) and scan once more: that doubt goes.`;
  if (shadowSdMm > STILL_SHADOWED_MM)
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

const NOTHING_CUT: Readonly<Record<CutShape, string>> = {
  hole: 'No disc of this cut shows an open hole. Lift the round pieces out, and lay white card behind if what lies there is dark.',
  line: 'No ring of this cut shows a line in it. Rub a soft pencil or a marker over the slits and wipe the rest off, or see whether the pen wrote.',
  edge: 'No disc of this cut has dark card behind it. Lift the discs out of the sheet, lay them on the glass and dark card over them.',
};

/**
 * Printed, but no disc of the set tells where it was cut: what that may mean. Null where one does.
 * @param hasRough whether the sheet has grids that show a cut too far off for its discs.
 */
export function nothingCutWords(
  discs: readonly Pick<ScannedDisc, 'key' | 'state'>[],
  ownKeys: ReadonlySet<string>,
  { cutShape, hasRough }: { readonly cutShape: CutShape; readonly hasRough: boolean },
): string | null {
  const own = discs.filter((d) => ownKeys.has(d.key) && d.state !== 'missing');
  if (own.length === 0 || own.some((d) => isMeasured(d.state))) return null;
  const farOff = hasRough
    ? ' Cut, but beside the discs? Then it is too far off for a scan: read the rough position.'
    : '';
  return `${NOTHING_CUT[cutShape]}${farOff}`;
}

/** Beyond this a camera sees too much of what lies below a hole's rim. */
const MOST_TILT_DEG = 22;

/** A scan in a line: how it lay, how fine it is. */
export function scanLine(
  { kind, tiltRad, pixelsPerMm, turnDeg, isMirrored, cutShape, discs }: ScanResult,
  ownKeys: ReadonlySet<string>,
): string {
  const own = discs.filter((d) => ownKeys.has(d.key));
  const good = own.filter((d) => isMeasured(d.state)).length;
  const side = isMirrored ? ', seen from behind' : '';
  const count = `${good} of ${own.length} ${figureWord(cutShape)}s measured`;
  const tiltDeg = Math.round((tiltRad * 180) / Math.PI);
  const aslant = tiltDeg > MOST_TILT_DEG ? ' Hold the camera straighter above the sheet.' : '';
  if (kind === 'photo')
    return `photograph, ${tiltDeg}\u00b0 from straight above${side}: ${count}, approximately.${aslant}`;
  const coarse = pixelsPerMm * MM_PER_INCH < 195 ? ' Coarse: 300 dpi is right.' : '';
  const lying = turnDeg === null ? 'loose pieces' : `turned by ${turnDeg}\u00b0`;
  return `${Math.round(pixelsPerMm * MM_PER_INCH)} dpi, ${lying}${side}: ${count}.${coarse}`;
}
