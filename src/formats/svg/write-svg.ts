import { MM_PER_INCH } from '@/core/units/length';
import { formatNumber } from '../format-number';
import type { PathCommand, VectorDrawing, VectorLayer, VectorPath } from '../vector-drawing';

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

function pathElement(path: VectorPath, colour: string, heightMm: number, perMm: number): string {
  const paint =
    path.paint.kind === 'fill'
      ? `fill="${colour}" stroke="none"`
      : `fill="none" stroke="${colour}" stroke-width="${formatNumber(path.paint.widthMm * perMm, DECIMALS)}"`;
  return `<path ${paint} d="${pathData(path.commands, heightMm, perMm)}"/>`;
}

function layerElement(layer: VectorLayer, heightMm: number, perMm: number): string {
  const paths = layer.paths.map((p) => pathElement(p, layer.colour, heightMm, perMm)).join('\n');
  return `<g id="${layerId(layer.name)}"><title>${escapeText(layer.name)}</title>\n${paths}\n</g>`;
}

/** SVG 1.1 of a drawing: same box, y down, one group a layer, text already as outlines. */
export function writeSvg(drawing: VectorDrawing, options: SvgOptions): string {
  const perMm = options.unitsPerInch === 'mm' ? 1 : options.unitsPerInch / MM_PER_INCH;
  const width = formatNumber(drawing.widthMm, DECIMALS);
  const height = formatNumber(drawing.heightMm, DECIMALS);
  const box = `0 0 ${formatNumber(drawing.widthMm * perMm, DECIMALS)} ${formatNumber(drawing.heightMm * perMm, DECIMALS)}`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${width}mm" height="${height}mm" viewBox="${box}">`,
    `<title>${escapeText(drawing.title)}</title>`,
    ...drawing.layers.map((layer) => layerElement(layer, drawing.heightMm, perMm)),
    '</svg>',
    '',
  ].join('\n');
}
