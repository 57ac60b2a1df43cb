import 'server-only';
import { apply, cornersOf, translation, type Affine, type Point } from '@/core/geometry/affine';
import { sheetToFile, type FileAxes } from '@/core/geometry/file-axes';
import type { RollStrip } from '@/core/target/roll-strip';
import { stationCuts, stationInk } from '@/core/target/roll-strip-drawing';
import type { FilePath } from '@/formats/hpgl/hpgl';
import { mapCommands, polyline, type VectorDrawing, type VectorLayer } from '@/formats/vector-drawing';
import { CUT_COLOURS, CUT_LAYERS, CUT_LINE_MM, INK_COLOUR, inkPath } from './sheet-drawing';

/** Stations from one to another, both counted. */
export interface Stretch {
  readonly first: number;
  readonly last: number;
}

const stationsOf = ({ first, last }: Stretch): readonly number[] =>
  Array.from({ length: last - first + 1 }, (_, i) => first + i);

export const wholeStrip = ({ stations }: RollStrip): Stretch => ({ first: 1, last: stations });

/** Strip frame (origin in the middle of the leading edge) to a page that begins at the first of some stations. */
const onPage = (strip: RollStrip, { first }: Stretch): Affine<'sheet', 'file'> =>
  translation(strip.widthMm / 2, -(first - 1) * strip.spacingMm) as Affine<'sheet', 'file'>;

function inkLayer(strip: RollStrip, stretch: Stretch): VectorLayer {
  const placing = onPage(strip, stretch);
  const shapes = stationsOf(stretch).flatMap((no) => stationInk(strip, no));
  return { name: 'ink', colour: INK_COLOUR, paths: shapes.map((shape) => inkPath(shape, placing)) };
}

function cutLayer(strip: RollStrip, stretch: Stretch, spotInk?: string): VectorLayer {
  const placing = onPage(strip, stretch);
  const paths = stationsOf(stretch).flatMap((no) => stationCuts(strip, no));
  return {
    name: CUT_LAYERS[1],
    colour: CUT_COLOURS[1],
    ...(spotInk === undefined ? {} : { spotInk }),
    paths: paths.map((path) => ({
      commands: mapCommands(placing, polyline(path)),
      paint: { kind: 'stroke', widthMm: CUT_LINE_MM },
    })),
  };
}

const pageOf = (strip: RollStrip, { first, last }: Stretch, layers: readonly VectorLayer[]): VectorDrawing => ({
  title: `Roll strip, stations ${first} to ${last}`,
  widthMm: strip.widthMm,
  heightMm: (last - first + 1) * strip.spacingMm,
  layers,
});

/** What is printed of some stations. */
export const printedStretch = (strip: RollStrip, stretch: Stretch): VectorDrawing =>
  pageOf(strip, stretch, [inkLayer(strip, stretch)]);

/** Ink and cut of some stations in one drawing; the cut in a spot ink where a print queue knows it by that. */
export const drawnStretch = (strip: RollStrip, stretch: Stretch, spotInk?: string): VectorDrawing =>
  pageOf(strip, stretch, [inkLayer(strip, stretch), cutLayer(strip, stretch, spotInk)]);

/** Cut lines of some stations alone. */
export const cutStretch = (strip: RollStrip, stretch: Stretch): VectorDrawing =>
  pageOf(strip, stretch, [cutLayer(strip, stretch)]);

/** Cut lines of the whole strip as paths in the cutter's own file axes, its leading edge first. */
export function cutStripPaths(strip: RollStrip, axes: FileAxes): readonly FilePath[] {
  const lengthMm = strip.stations * strip.spacingMm;
  const extent = cornersOf(strip.widthMm, lengthMm).map(({ x, y }): Point => ({ x, y: y + lengthMm / 2 }));
  const placing = sheetToFile({ turnDeg: 0, face: 'ink-up' }, axes, extent);
  return stationsOf(wholeStrip(strip))
    .flatMap((no) => stationCuts(strip, no))
    .map((path) => path.map((p) => apply(placing, p)));
}
