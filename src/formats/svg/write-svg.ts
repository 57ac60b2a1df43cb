import { MM_PER_INCH } from '@/core/units/length';
import { formatNumber } from '../format-number';
import type { LineShape, PathCommand, VectorDrawing, VectorImage, VectorLayer, VectorPath } from '../vector-drawing';

/** Five decimals of a px or mm: 0.003 um. */
const DECIMALS = 5;

export interface SvgOptions {
  /**
   * Drawing units per inch: 96 or 72 for programs that take a plain number for a px of that size, or `mm` for a drawing
   * whose units are mm. Width and height are written in mm in every case.
   */
  readonly unitsPerInch: 96 | 72 | 'mm';
}

const escapeText = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
const layerId = (name: string): string => name.replace(/[^a-z0-9]+/gi, '-');

function pathData(commands: readonly PathCommand[], heightMm: number, perMm: number): string {
  return commands
    .map(
      (c) =>
        c.op +
        c.points
          .map((p) => `${formatNumber(p.x * perMm, DECIMALS)} ${formatNumber((heightMm - p.y) * perMm, DECIMALS)}`)
          .join(' '),
    )
    .join('');
}

function lineAttributes(line: LineShape | undefined): string {
  if (!line) return '';
  const { ends, corners, miterLimit } = line;
  return ` stroke-linecap="${ends}" stroke-linejoin="${corners}" stroke-miterlimit="${formatNumber(miterLimit, DECIMALS)}"`;
}

function pathElement(path: VectorPath, layerColour: string, heightMm: number, perMm: number): string {
  const colour = path.colour ?? layerColour;
  const paint =
    path.paint.kind === 'fill'
      ? `fill="${colour}"${path.paint.isEvenOdd ? ' fill-rule="evenodd"' : ''} stroke="none"`
      : `fill="none" stroke="${colour}" stroke-width="${formatNumber(path.paint.widthMm * perMm, DECIMALS)}"${lineAttributes(path.paint.line)}`;
  return `<path ${paint} d="${pathData(path.commands, heightMm, perMm)}"/>`;
}

function base64(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 0x8000) parts.push(String.fromCharCode(...bytes.subarray(i, i + 0x8000)));
  return btoa(parts.join(''));
}

/** A picture's unit square is y up, an SVG's y down: its own corner is the upper left. */
function imageMatrix({ place }: VectorImage, heightMm: number, perMm: number): string {
  const { xx, xy, yx, yy, tx, ty } = place;
  const numbers = [xx, -yx, -xy, yy, xy + tx, heightMm - (yy + ty)];
  return numbers.map((n) => formatNumber(n * perMm, DECIMALS)).join(' ');
}

/** Each picture's bytes stand in the file once, however often it is drawn. */
function imageElements(images: readonly VectorImage[], heightMm: number, perMm: number): readonly string[] {
  const contents = [...new Set(images.map((image) => image.content))];
  const definitions = contents.map((content, i) => {
    const format = images.find((image) => image.content === content)?.format ?? 'png';
    return `<image id="picture-${i}" width="1" height="1" preserveAspectRatio="none" xlink:href="data:image/${format};base64,${base64(content)}"/>`;
  });
  const uses = images.map(
    (image) =>
      `<use xlink:href="#picture-${contents.indexOf(image.content)}" transform="matrix(${imageMatrix(image, heightMm, perMm)})"/>`,
  );
  return definitions.length > 0 ? [`<defs>${definitions.join('\n')}</defs>`, ...uses] : [];
}

function layerElement(layer: VectorLayer, heightMm: number, perMm: number): string {
  const paths = [
    ...imageElements(layer.images ?? [], heightMm, perMm),
    ...layer.paths.map((p) => pathElement(p, layer.colour, heightMm, perMm)),
  ].join('\n');
  return `<g id="${layerId(layer.name)}"><title>${escapeText(layer.name)}</title>\n${paths}\n</g>`;
}

/** SVG 1.1 of a drawing: same box, y down, one group a layer, text already as outlines. */
export function writeSvg(drawing: VectorDrawing, options: SvgOptions): string {
  const perMm = options.unitsPerInch === 'mm' ? 1 : options.unitsPerInch / MM_PER_INCH;
  const width = formatNumber(drawing.widthMm, DECIMALS);
  const height = formatNumber(drawing.heightMm, DECIMALS);
  const box = `0 0 ${formatNumber(drawing.widthMm * perMm, DECIMALS)} ${formatNumber(drawing.heightMm * perMm, DECIMALS)}`;
  const hasImages = drawing.layers.some((layer) => (layer.images ?? []).length > 0);
  const links = hasImages ? ' xmlns:xlink="http://www.w3.org/1999/xlink"' : '';
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg"${links} version="1.1" width="${width}mm" height="${height}mm" viewBox="${box}">`,
    `<title>${escapeText(drawing.title)}</title>`,
    ...drawing.layers.map((layer) => layerElement(layer, drawing.heightMm, perMm)),
    '</svg>',
    '',
  ].join('\n');
}
