import type { PrintScale, PrintShape } from '@/core/scan/print-size';
import { formatFixed, formatLength, type UnitSystem } from '@/core/units/length';
import { SIDE_95 } from './scan-words';

interface ShapeRow {
  readonly name: string;
  readonly found: string;
  readonly doubt: string;
}

const percent = (share: number, digits = 3): string => `${formatFixed(100 * share, digits)} %`;
const signed = (share: number): string => `${share > 0 ? '+' : ''}${percent(share)}`;

/** A skew as what it makes of a length: mm in 100 mm, or thousandths of an inch in one. */
const skew = (rad: number, system: UnitSystem): string =>
  system === 'mm' ? `${formatFixed(100 * rad, 3)} mm in 100 mm` : `${formatFixed(1000 * rad, 2)} thousandths an inch`;

/** Shape of print and scanner, each with what it may be off by (95 %). */
export function shapeRows(shape: PrintShape, system: UnitSystem): readonly ShapeRow[] {
  const { stretch, skewRad, scannerStretch, scannerSkewRad } = shape;
  return [
    { name: 'Print longer across than along', found: signed(stretch.value), doubt: percent(SIDE_95 * stretch.sd) },
    { name: 'Print out of square', found: skew(skewRad.value, system), doubt: skew(SIDE_95 * skewRad.sd, system) },
    {
      name: 'Scanner longer across its glass than down it',
      found: signed(scannerStretch.value),
      doubt: percent(SIDE_95 * scannerStretch.sd),
    },
    {
      name: 'Scanner out of square',
      found: skew(scannerSkewRad.value, system),
      doubt: skew(SIDE_95 * scannerSkewRad.sd, system),
    },
  ];
}

/** Print and scanner are told apart when the stretch is known to this, rad or share. */
const APART_SD = 0.001;

/** What the scans can tell of the print's shape, and what would tell more. */
export function shapeAdvice({ stretch }: PrintShape): string {
  if (stretch.sd > APART_SD)
    return 'From scans that lie the same way the print\u2019s shape and the scanner\u2019s own are not told apart. Turn the sheet by a quarter and scan once more.';
  return 'The print turned with the sheet, the scanner did not: so they are told apart. The cutter follows the print, whatever its shape.';
}

/** Both scales, each with what it may be off by (95 %). */
export const scaleWords = ({ across, along }: PrintScale): string =>
  `Across the print is ${percent(across.value)} of its size (give or take ${percent(SIDE_95 * across.sd)}), along ${percent(along.value)} (give or take ${percent(SIDE_95 * along.sd)}).`;

const SHOWN_MM = 200;

/** What that makes of a length, and where it is put right: nothing is said of what its doubt hides. */
export function sizeWords({ across, along }: PrintScale, system: UnitSystem): string {
  const parts = [
    { way: 'across', ...across },
    { way: 'along', ...along },
  ].flatMap(({ way, value, sd }) => {
    const offMm = SHOWN_MM * (value - 1);
    if (Math.abs(value - 1) < SIDE_95 * sd) return [];
    return [`${formatLength(Math.abs(offMm), system)} too ${offMm > 0 ? 'long' : 'short'} ${way}`];
  });
  if (parts.length === 0) return 'Neither is clearly off.';
  return `${formatLength(SHOWN_MM, system)} print ${parts.join(' and ')}. The cut follows the print, so its register is untouched; if sizes matter, put it right in the printer\u2019s own scale or feed, then print and check anew.`;
}
