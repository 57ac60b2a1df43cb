import { fail, ok, type Result } from '../result';

export const MM_PER_INCH = 25.4;
export const POINTS_PER_INCH = 72;
export const PX_PER_INCH = 96;
/** One plotter unit of HPGL is 0.025 mm. */
export const PLOTTER_UNITS_PER_MM = 40;
export const MM_PER_POINT = MM_PER_INCH / POINTS_PER_INCH;
export const MM_PER_PX = MM_PER_INCH / PX_PER_INCH;

export const UNIT_SYSTEMS = ['mm', 'in-decimal', 'in-fraction'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];

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
 * A number without a unit is in the given system's unit. Exact conversions.
 * @returns mm, or the reason.
 */
export function parseLength(text: string, system: UnitSystem): Result<number, LengthProblem> {
  const trimmed = text.trim().toLowerCase();
  if (trimmed === '') return fail({ kind: 'empty' });
  const match = LENGTH.exec(trimmed);
  if (!match) return fail({ kind: 'not-a-length', text: text.trim() });
  const value = magnitude(match.slice(2, 8));
  if (!Number.isFinite(value)) return fail({ kind: 'not-a-length', text: text.trim() });
  const written = (match[8] ?? '').replace(/[\u2033\u201d]/, '"');
  const unit = written === '' ? defaultUnit(system) : written;
  const mmPer = MM_PER[unit];
  if (mmPer === undefined) return fail({ kind: 'unknown-unit', unit });
  const sign = match[1] === '' || match[1] === '+' || match[1] === undefined ? 1 : -1;
  return ok(sign * value * mmPer);
}

function defaultUnit(system: UnitSystem): string {
  return system === 'mm' ? 'mm' : 'in';
}

/** What to tell someone whose length could not be read. */
export function lengthProblemWords(problem: LengthProblem, system: UnitSystem): string {
  const example = system === 'mm' ? '0.35 or 0,35 mm' : '0.014 in or 1/64 in';
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

/** Nearest 1/64 inch as "5 3/16"; a tilde in front when that is not exact to 0.01 mm. */
function inchFraction(mm: number, signed: boolean): string {
  const sixtyFourths = Math.round((Math.abs(mm) / MM_PER_INCH) * 64);
  const exact = Math.abs((sixtyFourths * MM_PER_INCH) / 64 - Math.abs(mm)) < 0.005;
  const whole = Math.floor(sixtyFourths / 64);
  let upper = sixtyFourths % 64;
  let lower = 64;
  while (upper > 0 && upper % 2 === 0) {
    upper /= 2;
    lower /= 2;
  }
  const parts = [whole > 0 || upper === 0 ? String(whole) : '', upper > 0 ? `${upper}/${lower}` : ''].filter(Boolean);
  const isNegative = mm < 0 && sixtyFourths > 0;
  const sign = isNegative ? MINUS : signed && sixtyFourths > 0 ? '+' : '';
  return `${exact ? '' : '~'}${sign}${parts.join(' ')}`;
}

/** Number without its unit, in the person's system; mm to 2 decimals, inches to 3, fractions to 1/64. */
export function formatLengthNumber(mm: number, system: UnitSystem, signed = false): string {
  if (system === 'mm') return formatFixed(mm, 2, signed);
  if (system === 'in-decimal') return formatFixed(mm / MM_PER_INCH, 3, signed);
  return inchFraction(mm, signed);
}

export const unitWord = (system: UnitSystem): string => (system === 'mm' ? 'mm' : 'in');

export function formatLength(mm: number, system: UnitSystem, signed = false): string {
  return `${formatLengthNumber(mm, system, signed)} ${unitWord(system)}`;
}
