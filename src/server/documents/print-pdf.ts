import 'server-only';
import PDFDocument from 'pdfkit';
import type { PathCommand, VectorDrawing, VectorImage, VectorLayer, VectorPath } from '@/formats/vector-drawing';
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
  readonly page: {
    readonly resources: { readonly data: Record<string, unknown> };
    readonly ext_gstates: Record<string, unknown>;
  };
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

/** Pictures by their bytes: each stands in the file once. */
type Opened = Map<Uint8Array, PDFKit.Mixins.ImageSrc>;

/** pdfkit's own picture, opened once. Its types leave the opening out. */
function openedImage(document: PDFKit.PDFDocument, opened: Opened, image: VectorImage): PDFKit.Mixins.ImageSrc {
  const known = opened.get(image.content);
  if (known) return known;
  const inside = document as unknown as { openImage: (content: Buffer) => PDFKit.Mixins.ImageSrc };
  const made = inside.openImage(Buffer.from(image.content));
  opened.set(image.content, made);
  return made;
}

/** pdfkit draws a picture from its upper left corner, y down. */
function drawImage(document: PDFKit.PDFDocument, opened: Opened, image: VectorImage, heightMm: number): void {
  const { xx, xy, yx, yy, tx, ty } = image.place;
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = [xx, -yx, -xy, yy, xy + tx, heightMm - (yy + ty)].map(points);
  document.save().transform(a, b, c, d, e, f);
  document.image(openedImage(document, opened, image), 0, 0, { width: 1, height: 1 });
  document.restore();
}

/** What a page begins with: ISO 32000-1, table 52. */
const PLAIN = { ends: 'butt', corners: 'miter', miterLimit: 10 } as const;

type StrokePaint = Extract<VectorPath['paint'], { kind: 'stroke' }>;

/** A colour as pdfkit takes it: a spot ink's name, #rrggbb, or shares of four inks in percent. */
type Paint = string | [number, number, number, number];

/** Black of our own ink, in one plate: black told as red, green and blue is printed in four inks. */
const ONE_INK_BLACK: Paint = [0, 0, 0, 100];

/** What a path is drawn in: its layer's spot ink, a colour of its own, else the layer's. */
function paintOf(layer: VectorLayer, path: VectorPath): Paint {
  if (layer.spotInk !== undefined) return layer.spotInk;
  if (path.colour !== undefined) return path.colour;
  return layer.colour === '#000000' ? ONE_INK_BLACK : layer.colour;
}

/** Ends and corners last for this line alone. */
function strokePath(document: PDFKit.PDFDocument, { widthMm, line }: StrokePaint, colour: Paint): void {
  document.lineWidth(points(widthMm));
  if (line) document.lineCap(line.ends).lineJoin(line.corners).miterLimit(line.miterLimit);
  document.stroke(colour);
  if (line) document.lineCap(PLAIN.ends).lineJoin(PLAIN.corners).miterLimit(PLAIN.miterLimit);
}

function drawLayer(document: PDFKit.PDFDocument, opened: Opened, layer: VectorLayer, heightMm: number): void {
  for (const image of layer.images ?? []) drawImage(document, opened, image, heightMm);
  for (const path of layer.paths) {
    const colour = paintOf(layer, path);
    document.path(pathData(path.commands, heightMm));
    if (path.paint.kind === 'stroke') strokePath(document, path.paint, colour);
    else if (path.paint.isEvenOdd) document.fill(colour, 'even-odd');
    else document.fill(colour);
  }
}

/** State of the page in which a spot ink is laid over the others instead of knocking them out (ISO 32000-1, 8.6.7), and back. */
const overprintOf = (inside: PdfInside): string => stateOf(inside, 'GsOver', { OP: true, op: true, OPM: 1 });
const knockoutOf = (inside: PdfInside): string => stateOf(inside, 'GsPlain', { OP: false, op: false, OPM: 0 });

function stateOf(inside: PdfInside, name: string, state: Record<string, unknown>): string {
  const { page } = inside;
  if (!page.ext_gstates[name]) {
    const made = inside.ref({ Type: 'ExtGState', ...state });
    page.ext_gstates[name] = made;
    made.end();
  }
  return name;
}

/** One drawing on a page of its own size. */
function addPage(document: PDFKit.PDFDocument, opened: Opened, { widthMm, heightMm, layers }: VectorDrawing): void {
  const inside = document as unknown as PdfInside;
  document.addPage({ size: [points(widthMm), points(heightMm)], margin: 0 });
  const groups = layers.length > 1 ? layerGroups(inside, layers) : [];
  for (const [i, layer] of layers.entries()) {
    if (groups[i]) inside.addContent(`/OC /MC${i} BDC`);
    if (layer.spotInk !== undefined) inside.addContent(`/${overprintOf(inside)} gs`);
    drawLayer(document, opened, layer, heightMm);
    if (layer.spotInk !== undefined) inside.addContent(`/${knockoutOf(inside)} gs`);
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
  const opened: Opened = new Map();
  for (const drawing of drawings) addPage(document, opened, drawing);
  document.end();
  await finished;
  return Buffer.concat(chunks);
}
