import { dsvFormat } from 'd3';
import { STRIP_SIDES, type StripSide } from '@/core/target/roll-strip';
import { AXES, type Axis } from '@/core/target/wedge';
import { lengthProblemWords, parseLength, type TypedUnit } from '@/core/units/length';
import { MOST_CHARACTERS, separatorOf, type ListProblem } from './reading-list';

/** One reading along a roll out of a list, with the line it stood in. */
export interface ListedStation {
  readonly line: number;
  readonly stationNo: number;
  readonly side: StripSide;
  readonly axis: Axis;
  readonly readingMm: number;
}

export interface StationList {
  readonly readings: readonly ListedStation[];
  readonly problems: readonly ListProblem[];
}

/** More than anybody reads off one roll. */
const MOST_LINES = 4000;

interface Heads {
  readonly station: number;
  readonly side: number;
  readonly values: readonly {
    readonly axis: Axis;
    readonly column: number;
    readonly title: string;
    readonly unit: string;
  }[];
}

const UNIT = /[\s([]+(mm|cm|in|inch|thou|")[)\]]*$/i;

function headsOf(titles: readonly string[]): Heads {
  const at = (pattern: RegExp): number => titles.findIndex((t) => pattern.test(t.trim()));
  const values = AXES.flatMap((axis) => {
    const column = at(axis === 'across' ? /^(?:across|x\b)/i : /^(?:along|y\b)/i);
    const title = titles[column]?.trim() ?? '';
    return column < 0 ? [] : [{ axis, column, title, unit: UNIT.exec(title)?.[1] ?? '' }];
  });
  return { station: at(/^(?:station|piece|no\.?|#)/i), side: at(/^(?:side|place)/i), values };
}

/** A side told by its name or its first letter. */
const sideOf = (words: string): StripSide | undefined =>
  STRIP_SIDES.find((side) => words !== '' && side.startsWith(words.toLowerCase()));

interface Lines {
  readonly heads: Heads;
  readonly sides: readonly StripSide[];
  readonly system: TypedUnit;
}

function readLine(cells: readonly string[], line: number, { heads, sides, system }: Lines): StationList {
  const cell = (column: number): string => cells[column]?.trim() ?? '';
  const wrong = (field: string, words: string): StationList => ({ readings: [], problems: [{ line, field, words }] });
  const station = cell(heads.station);
  const stationNo = Number(station);
  if (!/^\d{1,6}$/.test(station) || stationNo === 0)
    return wrong('station', `"${station}" is no station: its number, counted from the leading edge, is expected.`);
  const side = heads.side < 0 && sides.length === 1 ? sides[0] : sideOf(cell(heads.side));
  if (!side) return wrong('side', `"${cell(heads.side)}" is no side: ${sides.join(', ')} is expected.`);
  const readings: ListedStation[] = [];
  const problems: ListProblem[] = [];
  for (const { axis, column, title, unit } of heads.values) {
    const text = cell(column);
    if (text === '') continue;
    const parsed = parseLength(/[a-z"]/i.test(text) ? text : `${text} ${unit}`, system);
    if (parsed.ok) readings.push({ line, stationNo, side, axis, readingMm: parsed.value });
    else problems.push({ line, field: title, words: lengthProblemWords(parsed.error, system) });
  }
  return { readings, problems };
}

/** The same figure told twice: which of the two counts is not guessed. */
function repeatedIn(readings: readonly ListedStation[]): readonly ListProblem[] {
  const seen = new Map<string, number>();
  return readings.flatMap(({ line, stationNo, side, axis }) => {
    const key = `${stationNo} ${side} ${axis}`;
    const before = seen.get(key);
    if (before === undefined) seen.set(key, line);
    return before === undefined
      ? []
      : [{ line, field: axis, words: `Station ${stationNo} ${side} ${axis} stands in line ${before} already.` }];
  });
}

/**
 * Readings along a roll out of a table as spreadsheets write it: a head line with "station" (or "piece"), "side", "across"
 * and "along", a unit in the head where it is not the person's own; the rest as a list of a sheet's readings has it.
 * @param sides that were printed: where there is only one, its column may be left out.
 */
export function parseStationList(text: string, sides: readonly StripSide[], system: TypedUnit): StationList {
  const only = (line: number, field: string, words: string): StationList => ({
    readings: [],
    problems: [{ line, field, words }],
  });
  if (text.length > MOST_CHARACTERS) return only(1, 'list', 'This is far longer than any list of readings.');
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/);
  const separator = separatorOf(lines[0] ?? '');
  const [titles = [], ...rows] = dsvFormat(separator).parseRows(lines.slice(0, MOST_LINES + 1).join('\n'));
  const heads = headsOf(titles);
  if (heads.station < 0 || heads.values.length === 0 || (heads.side < 0 && sides.length > 1))
    return only(1, 'head', 'The first line must name the columns: station, side, across, along.');
  const read = rows.flatMap((cells, i) =>
    cells.some((c) => c.trim() !== '') ? [readLine(cells, i + 2, { heads, sides, system })] : [],
  );
  const readings = read.flatMap((r) => r.readings);
  const tooMany =
    lines.length > MOST_LINES + 1
      ? [{ line: MOST_LINES + 2, field: 'list', words: `More than ${MOST_LINES} lines.` }]
      : [];
  return { readings, problems: [...read.flatMap((r) => r.problems), ...tooMany, ...repeatedIn(readings)] };
}
