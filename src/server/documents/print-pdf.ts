import 'server-only';
import PDFDocument from 'pdfkit';
import type { PathCommand, VectorDrawing, VectorLayer } from '@/formats/vector-drawing';
import { formatNumber } from '@/formats/format-number';
import { MM_PER_POINT } from '@/core/units/length';

const points = (mm: number): number => mm / MM_PER_POINT;

/** Path data in PDF points, y down as pdfkit wants it. */
function pathData(commands: readonly PathCommand[], heightMm: number): string {
  return commands
    .map(
      (c) =>
        c.op +
        c.points.map((p) => `${formatNumber(points(p.x), 5)} ${formatNumber(points(heightMm - p.y), 5)}`).join(' '),
    )
    .join('');
}

interface LayerList {
  readonly OCGs: readonly object[];
  readonly D: object;
}

/** The parts of pdfkit that its types leave out: the catalog, the page's resources, spot inks and raw content. */
interface PdfInside {
  readonly _root: { readonly data: { OCProperties?: LayerList; ViewerPreferences?: unknown } };
  readonly page: { readonly resources: { readonly data: Record<string, unknown> } };
  readonly ref: (data: Record<string, unknown>) => { readonly end: () => void };
  readonly addSpotColor: (name: string, ...cmykPercent: readonly number[]) => void;
  readonly addContent: (content: string) => void;
}

/** How a spot ink looks on screen where it is not known, percent: near the cut's own colour, never an ink of the art. */
const SPOT_LOOK = [0, 95, 60, 10] as const;

/** Same drawing, same bytes: the clock stays out of the file. */
const FIXED_DATE = new Date(Date.UTC(2000, 0, 1));

/** Optional content groups, one a layer, so that a queue can show or print them apart. */
function layerGroups(inside: PdfInside, layers: readonly VectorLayer[]) {
  const groups = layers.map((layer) =>
    // pdfkit writes a String object as text and a plain string as a name.
    inside.ref({ Type: 'OCG', Name: Object(layer.name) as string, Usage: { Print: { PrintState: 'ON' } } }),
  );
  const all = [...(inside._root.data.OCProperties?.OCGs ?? []), ...groups];
  inside._root.data.OCProperties = { OCGs: all, D: { Order: all, ON: all } };
  inside.page.resources.data.Properties = Object.fromEntries(groups.map((group, i) => [`MC${i}`, group]));
  return groups;
}

function drawLayer(document: PDFKit.PDFDocument, layer: VectorLayer, heightMm: number): void {
  const colour = layer.spotInk ?? layer.colour;
  for (const path of layer.paths) {
    document.path(pathData(path.commands, heightMm));
    if (path.paint.kind === 'fill') document.fill(colour);
    else document.lineWidth(points(path.paint.widthMm)).stroke(colour);
  }
}

/** One drawing on a page of its own size. */
function addPage(document: PDFKit.PDFDocument, { widthMm, heightMm, layers }: VectorDrawing): void {
  const inside = document as unknown as PdfInside;
  document.addPage({ size: [points(widthMm), points(heightMm)], margin: 0 });
  const groups = layers.length > 1 ? layerGroups(inside, layers) : [];
  for (const [i, layer] of layers.entries()) {
    if (groups[i]) inside.addContent(`/OC /MC${i} BDC`);
    drawLayer(document, layer, heightMm);
    if (groups[i]) inside.addContent('EMC');
  }
  for (const group of groups) group.end();
}

/**
 * PDF of drawings at exact size, a page each; the viewer is told not to scale. Same vectors as the SVG, text as outlines.
 * With several layers each is an optional content group; a layer with a spot ink is stroked in that separation.
 */
export async function writePdf(...drawings: readonly VectorDrawing[]): Promise<Buffer> {
  const document = new PDFDocument({
    autoFirstPage: false,
    info: { Title: drawings[0]?.title ?? '', CreationDate: FIXED_DATE, ModDate: FIXED_DATE },
  });
  const inside = document as unknown as PdfInside;
  inside._root.data.ViewerPreferences = document.ref({ PrintScaling: 'None', Enforce: ['PrintScaling'] });
  const chunks: Buffer[] = [];
  const finished = new Promise<void>((resolve, reject) => {
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', resolve);
    document.on('error', reject);
  });
  const spotInks = new Set(drawings.flatMap(({ layers }) => layers.flatMap(({ spotInk }) => spotInk ?? [])));
  for (const spotInk of spotInks) inside.addSpotColor(spotInk, ...SPOT_LOOK);
  for (const drawing of drawings) addPage(document, drawing);
  document.end();
  await finished;
  return Buffer.concat(chunks);
}
