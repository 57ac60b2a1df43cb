import 'server-only';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { MM_PER_POINT } from '@/core/units/length';
import { isoA } from '@/core/units/sheet-size';

export interface ValueCard {
  readonly title: string;
  /** Machines, material, when and by whom: small, under the title. */
  readonly subtitle: string;
  readonly lines: readonly { readonly name: string; readonly value: string; readonly note: string }[];
  readonly footer: string;
}

const fontFile = (path: string): string =>
  createRequire(`${process.cwd()}/package.json`).resolve(`@fontsource/${path}`);
const WORDS = 'archivo/files/archivo-latin-600-normal.woff';
const FIGURES = 'spline-sans-mono/files/spline-sans-mono-latin-600-normal.woff';

const FIXED_DATE = new Date(Date.UTC(2000, 0, 1));
const MARGIN_PT = 36;
/** Read from a metre away: 12 mm figures. */
const VALUE_PT = 40;
const NAME_PT = 20;
const SMALL_PT = 12;

/** A card to hang on the machine: what each display should show, in figures that are read from a metre away. A5, upright. */
export async function writeValueCard(card: ValueCard): Promise<Buffer> {
  const page = isoA(5);
  const widthPt = page.widthMm / MM_PER_POINT;
  const document = new PDFDocument({
    size: [widthPt, page.lengthMm / MM_PER_POINT],
    margin: MARGIN_PT,
    info: { Title: card.title, CreationDate: FIXED_DATE, ModDate: FIXED_DATE },
  });
  const chunks: Buffer[] = [];
  const finished = new Promise<void>((resolve, reject) => {
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', resolve);
    document.on('error', reject);
  });
  document.registerFont('words', fontFile(WORDS)).registerFont('figures', fontFile(FIGURES));
  document.font('words').fontSize(26).text(card.title);
  document.fontSize(SMALL_PT).text(card.subtitle).moveDown(1);
  for (const { name, value, note } of card.lines) {
    document.font('words').fontSize(NAME_PT).text(name);
    document.font('figures').fontSize(VALUE_PT).text(value);
    if (note !== '') document.font('words').fontSize(SMALL_PT).text(note);
    document.moveDown(0.4);
  }
  document.font('words').fontSize(SMALL_PT).text(card.footer);
  document.end();
  await finished;
  return Buffer.concat(chunks);
}
