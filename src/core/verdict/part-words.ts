import { formatFixed, formatLength, type UnitSystem } from '../units/length';
import type { Part } from './parts';

export const PART_NAMES: Readonly<Record<Part, string>> = {
  offsetAcrossMm: 'offset across',
  offsetAlongMm: 'offset along',
  rotationRad: 'rotation',
  scaleAcross: 'scale across',
  scaleAlong: 'scale along',
  squareness: 'out of square',
};

const degrees = (rad: number): string => `${formatFixed((rad * 180) / Math.PI, 3, true)}\u00b0`;

/** A part of the error as shops tell it: lengths in the person's unit, scale in percent, angles in degrees; always signed. */
export function partValueWords(part: Part, value: number, system: UnitSystem): string {
  switch (part) {
    case 'offsetAcrossMm':
    case 'offsetAlongMm':
      return formatLength(value, system, true);
    case 'rotationRad':
      return degrees(value);
    case 'squareness':
      return degrees(Math.atan(value));
    case 'scaleAcross':
    case 'scaleAlong':
      return `${formatFixed(value * 100, 3, true)} %`;
  }
}
