import { flatten } from '../flatten';
import { formatNumber } from '../format-number';
import type { VectorDrawing, VectorLayer } from '../vector-drawing';

type Token = readonly [code: number, value: string | number];

/** Decimals of a mm: 0.01 um. */
const DECIMALS = 5;
/** Colours of the layers by number, as every reader of the format knows them: white/black, red, green. */
const LAYER_COLOURS = [7, 1, 3] as const;

/** Unit code of $INSUNITS, and the metric value of $MEASUREMENT. */
const MILLIMETRES = 4;
const METRIC = 1;

const layerName = (name: string): string => name.toUpperCase().replace(/[^A-Z0-9]+/g, '_');

const place = (x: number, y: number): readonly Token[] => [
  [10, x],
  [20, y],
  [30, 0],
];

function layerTable(layers: readonly VectorLayer[]): readonly Token[] {
  return [
    [0, 'TABLE'],
    [2, 'LAYER'],
    [70, layers.length],
    ...layers.flatMap((layer, i): readonly Token[] => [
      [0, 'LAYER'],
      [2, layerName(layer.name)],
      [70, 0],
      [62, LAYER_COLOURS[i] ?? 7],
      [6, 'CONTINUOUS'],
    ]),
    [0, 'ENDTAB'],
  ];
}

function lineTypeTable(): readonly Token[] {
  return [
    [0, 'TABLE'],
    [2, 'LTYPE'],
    [70, 1],
    [0, 'LTYPE'],
    [2, 'CONTINUOUS'],
    [70, 0],
    [3, 'Solid line'],
    [72, 65],
    [73, 0],
    [40, 0],
    [0, 'ENDTAB'],
  ];
}

/** One polyline a sub-path: closed ones by flag, without a doubled last corner. */
function entities(layer: VectorLayer): readonly Token[] {
  const name = layerName(layer.name);
  return layer.paths.flatMap((path) =>
    flatten(path.commands).flatMap(({ points, isClosed }): readonly Token[] => [
      [0, 'POLYLINE'],
      [8, name],
      [66, 1],
      ...place(0, 0),
      [70, isClosed ? 1 : 0],
      ...points.flatMap((p): readonly Token[] => [[0, 'VERTEX'], [8, name], ...place(p.x, p.y)]),
      [0, 'SEQEND'],
      [8, name],
    ]),
  );
}

function text([code, value]: Token): string {
  const isReal = code >= 10 && code <= 59;
  const written = typeof value === 'number' && isReal ? formatNumber(value, DECIMALS) : String(value);
  return `${code}\n${isReal && !written.includes('.') ? `${written}.0` : written}\n`;
}

/**
 * DXF release 12 (AC1009) of a drawing: mm, y up, origin lower left, one layer a layer. The oldest release that every
 * program opens. Its own header has no unit; the two variables that later releases brought are written all the same, as many
 * programs do: those that know them take mm, the others pass over them. Source: the R12 and 2000 references, from memory.
 */
export function writeDxf(drawing: VectorDrawing): string {
  const tokens: readonly Token[] = [
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1009'],
    [9, '$INSUNITS'],
    [70, MILLIMETRES],
    [9, '$MEASUREMENT'],
    [70, METRIC],
    [9, '$EXTMIN'],
    ...place(0, 0),
    [9, '$EXTMAX'],
    ...place(drawing.widthMm, drawing.heightMm),
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'TABLES'],
    ...lineTypeTable(),
    ...layerTable(drawing.layers),
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...drawing.layers.flatMap(entities),
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ];
  return tokens.map(text).join('');
}
