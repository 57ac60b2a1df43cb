import 'server-only';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { MM_PER_POINT } from '@/core/units/length';

/** As they are: of a packed font every letter would unpack the whole of it again. */
const WORDS = 'archivo/600SemiBold/Archivo_600SemiBold.ttf';
const FIGURES = 'spline-sans-mono/600SemiBold/SplineSansMono_600SemiBold.ttf';

const fontBytes = (path: string): Buffer =>
  readFileSync(createRequire(`${process.cwd()}/package.json`).resolve(`@expo-google-fonts/${path}`));

let fonts: { readonly words: Buffer; readonly figures: Buffer } | null = null;
const ownFonts = () => (fonts ??= { words: fontBytes(WORDS), figures: fontBytes(FIGURES) });

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
  const { words, figures } = ownFonts();
  document.registerFont('words', words).registerFont('figures', figures);
  draw(document);
  document.end();
  await finished;
  return Buffer.concat(chunks);
}
