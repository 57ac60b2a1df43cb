import 'server-only';
import PDFDocument from 'pdfkit';
import type { PathCommand, VectorDrawing } from '@/formats/vector-drawing';
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

interface WithRoot {
  readonly _root: { readonly data: Record<string, unknown> };
}

/** Same drawing, same bytes: the clock stays out of the file. */
const FIXED_DATE = new Date(Date.UTC(2000, 0, 1));

/** PDF of a drawing at exact size; the viewer is told not to scale. Same vectors as the SVG, text as outlines. */
export async function writePdf(drawing: VectorDrawing): Promise<Buffer> {
  const document = new PDFDocument({
    size: [points(drawing.widthMm), points(drawing.heightMm)],
    margin: 0,
    info: { Title: drawing.title, CreationDate: FIXED_DATE, ModDate: FIXED_DATE },
  });
  const root = (document as unknown as WithRoot)._root;
  root.data.ViewerPreferences = document.ref({ PrintScaling: 'None', Enforce: ['PrintScaling'] });
  const chunks: Buffer[] = [];
  const finished = new Promise<void>((resolve, reject) => {
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', resolve);
    document.on('error', reject);
  });
  for (const layer of drawing.layers) {
    for (const path of layer.paths) {
      document.path(pathData(path.commands, drawing.heightMm));
      if (path.paint.kind === 'fill') document.fill(layer.colour);
      else document.lineWidth(points(path.paint.widthMm)).stroke(layer.colour);
    }
  }
  document.end();
  await finished;
  return Buffer.concat(chunks);
}
