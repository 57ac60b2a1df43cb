import 'server-only';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { MM_PER_POINT } from '@/core/units/length';

const fontFile = (path: string): string =>
  createRequire(`${process.cwd()}/package.json`).resolve(`@fontsource/${path}`);
const WORDS = 'archivo/files/archivo-latin-600-normal.woff';
const FIGURES = 'spline-sans-mono/files/spline-sans-mono-latin-600-normal.woff';

const FIXED_DATE = new Date(Date.UTC(2000, 0, 1));
export const MARGIN_PT = 36;

interface Page {
  readonly title: string;
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** A PDF of words and figures in the application's own fonts, `words` and `figures`; same content, same bytes. */
export async function textPdf(
  { title, widthMm, lengthMm }: Page,
  draw: (document: PDFKit.PDFDocument) => void,
): Promise<Buffer> {
  const document = new PDFDocument({
    size: [widthMm / MM_PER_POINT, lengthMm / MM_PER_POINT],
    margin: MARGIN_PT,
    info: { Title: title, CreationDate: FIXED_DATE, ModDate: FIXED_DATE },
  });
  const chunks: Buffer[] = [];
  const finished = new Promise<void>((resolve, reject) => {
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', resolve);
    document.on('error', reject);
  });
  document.registerFont('words', fontFile(WORDS)).registerFont('figures', fontFile(FIGURES));
  draw(document);
  document.end();
  await finished;
  return Buffer.concat(chunks);
}
