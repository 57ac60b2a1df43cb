import { Clipper } from 'clipper2-ts';
import { flatten } from '@/formats/flatten';
import type { PathCommand } from '@/formats/vector-drawing';

const number = (value: number): string => String(Math.round(value * 1000) / 1000);
const pair = ({ x, y }: { readonly x: number; readonly y: number }): string => `${number(x)} ${number(y)}`;

/** Whole micrometres: the polygon package reckons in integers. */
const UNITS_PER_MM = 1000;

/** Path data of a shape as it is. */
export const exactPath = (commands: readonly PathCommand<'page'>[]): string =>
  commands.map((c) => c.op + c.points.map(pair).join(' ')).join('');

/**
 * Path data of a shape for a picture in which nothing smaller than the tolerance is seen: straight pieces, as few as stay
 * that near (Douglas and Peucker 1973, Cartographica 10, 112, as the polygon package has it).
 */
export function coarsePath(commands: readonly PathCommand<'page'>[], toleranceMm: number): string {
  return flatten(commands, toleranceMm)
    .map(({ points, isClosed }) => {
      const units = points.map((p) => ({ x: Math.round(p.x * UNITS_PER_MM), y: Math.round(p.y * UNITS_PER_MM) }));
      const fewer = Clipper.ramerDouglasPeucker(units, toleranceMm * UNITS_PER_MM);
      const kept = fewer.map((p) => pair({ x: p.x / UNITS_PER_MM, y: p.y / UNITS_PER_MM }));
      return `M${kept.join('L')}${isClosed ? 'Z' : ''}`;
    })
    .join('');
}

/** More points than this are drawn coarsely: a picture shows no more. */
const MOST_POINTS = 4000;
/** Of an item's larger side: about half a dot of a large screen. */
const COARSE_SHARE = 1 / 2500;

export type Paths = readonly (readonly PathCommand<'page'>[])[];

/** How the paths of one item are written for a picture: as they are, or coarsely where all of them have too many points. @param sideMm the item's larger side. */
export function pathWriter(all: readonly Paths[], sideMm: number): (commands: Paths[number]) => string {
  const points = all.flat().reduce((sum, path) => sum + path.reduce((n, c) => n + c.points.length, 0), 0);
  return (commands) => (points > MOST_POINTS ? coarsePath(commands, sideMm * COARSE_SHARE) : exactPath(commands));
}
