import { fail, ok, type Result } from '@/core/result';
import type { Point } from '@/core/geometry/affine';
import { PLOTTER_UNITS_PER_MM } from '@/core/units/length';

export type FilePath = readonly Point<'file'>[];

export interface HpglOptions {
  /** Tool to take; 1 when not told. */
  readonly toolNumber?: number;
  /** Worked before the rest with a tool of its own: lines that are scored. */
  readonly first?: { readonly toolNumber: number; readonly paths: readonly FilePath[] };
  /** Followed with the tool up before anything is cut, so that one sees where the work will lie. */
  readonly outline?: FilePath;
  /** Material from the origin: nothing is commanded beyond it. */
  readonly limit?: { readonly xMm: number; readonly yMm: number };
}

export type HpglWriteError =
  | { readonly kind: 'beyond-material'; readonly pathIndex: number; readonly xMm: number; readonly yMm: number }
  | { readonly kind: 'negative'; readonly pathIndex: number; readonly xMm: number; readonly yMm: number }
  | { readonly kind: 'empty' };

const unit = (mm: number): number => Math.round(mm * PLOTTER_UNITS_PER_MM);

/** The first point that lies before the origin or beyond the material. */
function problemOf(path: FilePath, pathIndex: number, limit: HpglOptions['limit']): HpglWriteError | null {
  for (const { x: xMm, y: yMm } of path) {
    if (unit(xMm) < 0 || unit(yMm) < 0) return { kind: 'negative', pathIndex, xMm, yMm };
    if (limit && (xMm > limit.xMm || yMm > limit.yMm)) return { kind: 'beyond-material', pathIndex, xMm, yMm };
  }
  return null;
}

function pathCommands(path: FilePath): readonly string[] {
  const pairs = path.map((p) => `${unit(p.x)},${unit(p.y)}`);
  return [`PU${pairs[0] ?? ''};`, `PD${pairs.slice(1).join(',')};`];
}

/**
 * Cut paths as plain HPGL: initialise, tool, the outline with the tool up where one is given, pen up to each start, pen
 * down along it, pen up, tool away. Whole plotter units of 0.025 mm; no speed, no force, no mark reading (HPGL has none).
 * @returns the text; `negative` when a path leaves the file's box (many readers would shift the whole drawing) or
 *   `beyond-material`.
 */
export function writeHpgl(paths: readonly FilePath[], options: HpglOptions = {}): Result<string, HpglWriteError> {
  const { toolNumber = 1, first, outline = [], limit } = options;
  const work = [...(first ? [first] : []), { toolNumber, paths }].filter((run) => run.paths.length > 0);
  if (work.length === 0) return fail({ kind: 'empty' });
  const outlined = outline.map((p) => `PU${unit(p.x)},${unit(p.y)};`);
  const commands = ['IN;'];
  let pathIndex = 0;
  for (const run of work) {
    commands.push(`SP${run.toolNumber};`, ...(run === work[0] ? outlined : []));
    for (const path of run.paths) {
      const problem = problemOf(path, pathIndex, limit);
      if (problem) return fail(problem);
      commands.push(...pathCommands(path));
      pathIndex += 1;
    }
  }
  return ok([...commands, 'PU0,0;', 'SP0;', ''].join('\n'));
}

export type HpglReadError =
  | { readonly kind: 'unknown-command'; readonly command: string; readonly offset: number }
  | { readonly kind: 'bad-coordinates'; readonly command: string; readonly offset: number };

interface HpglCommand {
  readonly name: string;
  readonly coordinates: readonly Point<'file'>[];
}

const READ = new Set(['IN', 'SP', 'PU', 'PD', 'PA']);

function parseCommand(command: string, offset: number): Result<HpglCommand, HpglReadError> {
  const name = command.slice(0, 2).toUpperCase();
  if (!READ.has(name)) return fail({ kind: 'unknown-command', command: name, offset });
  if (name === 'IN' || name === 'SP') return ok({ name, coordinates: [] });
  const numbers = command
    .slice(2)
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((n) => Number(n) / PLOTTER_UNITS_PER_MM);
  if (numbers.length % 2 !== 0 || numbers.some((n) => !Number.isFinite(n))) {
    return fail({ kind: 'bad-coordinates', command, offset });
  }
  const coordinates = numbers.flatMap((x, i) => (i % 2 === 0 ? [{ x, y: numbers[i + 1] ?? NaN }] : []));
  return ok({ name, coordinates });
}

/** Pen-down moves as paths: a move that starts where the last path ended continues it. */
function pathsOf(commands: readonly HpglCommand[]): readonly FilePath[] {
  const paths: Point<'file'>[][] = [];
  let here: Point<'file'> = { x: 0, y: 0 };
  let isDown = false;
  let isContinued = false;
  for (const { name, coordinates } of commands) {
    if (name === 'PU' || name === 'PD') isDown = name === 'PD';
    for (const next of coordinates) {
      if (isDown && isContinued) paths.at(-1)?.push(next);
      else if (isDown) paths.push([here, next]);
      isContinued = isDown;
      here = next;
    }
  }
  return paths;
}

/** Reads what plain cut files use: IN, SP, PU, PD, PA, absolute coordinates. Anything else is refused by name and place. */
export function readHpgl(text: string): Result<readonly FilePath[], HpglReadError> {
  const commands: HpglCommand[] = [];
  for (const match of text.matchAll(/\s*([^;\s][^;]*)(;|$)/g)) {
    const parsed = parseCommand((match[1] ?? '').trim(), match.index);
    if (!parsed.ok) return parsed;
    commands.push(parsed.value);
  }
  return ok(pathsOf(commands));
}
