import { fail, ok, type Result } from '../result';

export const MM_PER_INCH = 25.4;
export const POINTS_PER_INCH = 72;
export const PX_PER_INCH = 96;
/** One plotter unit of HPGL is 0.025 mm. */
export const PLOTTER_UNITS_PER_MM = 40;
export const MM_PER_POINT = MM_PER_INCH / POINTS_PER_INCH;
export const MM_PER_PX = MM_PER_INCH / PX_PER_INCH;

/** A person's units; of the inch people some take sizes in fractions. Measured values are decimal for all. */
export const UNIT_SYSTEMS = ['mm', 'in-decimal', 'in-fraction'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];
/** Unit of the numbers printed on a sheet. */
export type PrintedUnit = 'mm' | 'thou';
/** What a number without a unit is in. */
export type TypedUnit = UnitSystem | PrintedUnit;

export type LengthProblem =
  | { readonly kind: 'empty' }
  | { readonly kind: 'not-a-length'; readonly text: string }
  | { readonly kind: 'unknown-unit'; readonly unit: string };

const MM_PER: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  '"': MM_PER_INCH,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  thou: MM_PER_INCH / 1000,
  pt: MM_PER_POINT,
  px: MM_PER_PX,
};

const LENGTH =
  /^([+\u2212-]?)\s*(?:(\d+)[\s-]+(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d*)?|[.,]\d+))\s*([a-z"\u2033\u201d]*)$/;

/** Value of the three written forms: "5 3/16", "3/16", "0.57" or "0,57". NaN when a fraction's lower number is 0. */
function magnitude(groups: readonly (string | undefined)[]): number {
  const [whole, wholeUpper, wholeLower, upper, lower, decimal] = groups;
  if (decimal !== undefined) return Number(decimal.replace(',', '.'));
  const fraction = Number(upper ?? wholeUpper) / Number(lower ?? wholeLower);
  return Number.isFinite(fraction) ? Number(whole ?? 0) + fraction : NaN;
}

/**
 * Reads a length as people write it: "0.57", "0,57", "-0.57 mm", "5 3/16", "5-3/16 in", "3/16\"", "20 thou", "12 pt".
 * A number without a unit is in the given one. Exact conversions.
 * @returns mm, or the reason.
 */
export function parseLength(text: string, typedUnit: TypedUnit): Result<number, LengthProblem> {
  const trimmed = text.trim().toLowerCase();
  if (trimmed === '') return fail({ kind: 'empty' });
  const match = LENGTH.exec(trimmed);
  if (!match) return fail({ kind: 'not-a-length', text: text.trim() });
  const value = magnitude(match.slice(2, 8));
  if (!Number.isFinite(value)) return fail({ kind: 'not-a-length', text: text.trim() });
  const written = (match[8] ?? '').replace(/[\u2033\u201d]/, '"');
  const unit = written === '' ? unitWord(typedUnit) : written;
  const mmPer = MM_PER[unit];
  if (mmPer === undefined) return fail({ kind: 'unknown-unit', unit });
  const sign = match[1] === '' || match[1] === '+' || match[1] === undefined ? 1 : -1;
  return ok(sign * value * mmPer);
}

const EXAMPLES: Readonly<Record<TypedUnit, string>> = {
  mm: '0.35 or 0,35 mm',
  thou: '14 or 14 thou',
  'in-decimal': '0.014 in or 14 thou',
  'in-fraction': '1/16 or 0.0625 in',
};

/** What to tell someone whose length could not be read. */
export function lengthProblemWords(problem: LengthProblem, typedUnit: TypedUnit): string {
  const example = EXAMPLES[typedUnit];
  switch (problem.kind) {
    case 'empty':
      return `Type a length, such as ${example}.`;
    case 'not-a-length':
      return `"${problem.text}" is not a length. Type one such as ${example}.`;
    case 'unknown-unit':
      return `"${problem.unit}" is not a unit known here. Use mm, cm, in, thou, pt or px, such as ${example}.`;
  }
}

export const MINUS = '\u2212';

/** Fixed decimals with a true minus sign and never "-0.00"; "+" in front when `signed`. */
export function formatFixed(value: number, decimals: number, signed = false): string {
  if (!Number.isFinite(value)) throw new Error(`cannot write ${value}`);
  const rounded = Math.abs(value).toFixed(decimals);
  const isZero = Number(rounded) === 0;
  if (value < 0 && !isZero) return MINUS + rounded;
  return signed && !isZero ? `+${rounded}` : rounded;
}

/** Number of a measured length without its unit: mm to 2 decimals, inches to 3. */
export function formatLengthNumber(mm: number, system: UnitSystem, signed = false): string {
  return system === 'mm' ? formatFixed(mm, 2, signed) : formatFixed(mm / MM_PER_INCH, 3, signed);
}

export function unitWord(typedUnit: TypedUnit): string {
  return typedUnit === 'mm' || typedUnit === 'thou' ? typedUnit : 'in';
}

/** A measured length with its unit: "0.35 mm", "0.014 in". */
export function formatLength(mm: number, system: UnitSystem, signed = false): string {
  return `${formatLengthNumber(mm, system, signed)} ${unitWord(system)}`;
}

/** Finest fraction of an inch that is written. */
const FINEST_FRACTION = 32;
/** A size this near to a fraction is that fraction: what a decimal to the thousandth cannot tell apart. */
const SAME_SIZE_MM = 0.0005 * MM_PER_INCH;

/** "5 3/16" where a size is a whole number of 1/32 inch, else null. */
function inchFraction(mm: number): string | null {
  const parts = Math.round((mm / MM_PER_INCH) * FINEST_FRACTION);
  if (mm < 0 || Math.abs((parts * MM_PER_INCH) / FINEST_FRACTION - mm) >= SAME_SIZE_MM) return null;
  const whole = Math.floor(parts / FINEST_FRACTION);
  let upper = parts % FINEST_FRACTION;
  let lower = FINEST_FRACTION;
  while (upper > 0 && upper % 2 === 0) {
    upper /= 2;
    lower /= 2;
  }
  return [whole > 0 || upper === 0 ? String(whole) : '', upper > 0 ? `${upper}/${lower}` : '']
    .filter(Boolean)
    .join(' ');
}

/** Number of a size that is typed (inset, border, bleed, limit, width): as a fraction where the person takes them and it is one. */
export function formatSizeNumber(mm: number, system: UnitSystem): string {
  const fraction = system === 'in-fraction' ? inchFraction(mm) : null;
  return fraction ?? formatLengthNumber(mm, system);
}

/** A size with its unit; a fraction with the decimal beside: "1/16 in (0.063)". */
export function formatSize(mm: number, system: UnitSystem): string {
  const decimal = formatLengthNumber(mm, system);
  const number = formatSizeNumber(mm, system);
  const beside = number.includes('/') ? ` (${decimal})` : '';
  return `${number} ${unitWord(system)}${beside}`;
}

/** A length finer than most, such as an uncertainty: mm to 3 decimals, inches to 4. */
export function formatFineNumber(mm: number, system: UnitSystem, signed = false): string {
  return system === 'mm' ? formatFixed(mm, 3, signed) : formatFixed(mm / MM_PER_INCH, 4, signed);
}

export function formatFine(mm: number, system: UnitSystem, signed = false): string {
  return `${formatFineNumber(mm, system, signed)} ${unitWord(system)}`;
}

/** Number of a reading in the unit printed at its figure: "0.30" mm, "12" thou. */
export function formatReadingNumber(mm: number, unit: PrintedUnit, signed = false): string {
  return unit === 'mm' ? formatFixed(mm, 2, signed) : formatFixed((1000 * mm) / MM_PER_INCH, 0, signed);
}

export function formatReading(mm: number, unit: PrintedUnit, signed = false): string {
  return `${formatReadingNumber(mm, unit, signed)} ${unit}`;
}
