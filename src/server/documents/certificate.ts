import 'server-only';
import { isoA } from '@/core/units/sheet-size';
import { MARGIN_PT, textPdf } from './text-pdf';

export interface Certificate {
  readonly title: string;
  /** The verdict in one sentence. */
  readonly verdict: string;
  /** What it is of, and under which conditions: name and words, a line each. */
  readonly facts: readonly (readonly [name: string, words: string])[];
  /** Parts of the error as left, each with its expanded uncertainty. */
  readonly parts: readonly (readonly [name: string, value: string, uncertainty: string])[];
  readonly settings: readonly (readonly [name: string, value: string])[];
  /** What the figures mean and what they do not. */
  readonly remarks: readonly string[];
  /** Fingerprint of what the certificate says. */
  readonly fingerprint: string;
}

const SMALL_PT = 9.5;
const COLUMN_PT = 170;

type Doc = PDFKit.PDFDocument;

function head(document: Doc, words: string): void {
  document.moveDown(0.9).font('words').fontSize(12).text(words, MARGIN_PT).moveDown(0.25);
  document.fontSize(SMALL_PT);
}

/** One line of a table: words first, figures after them. */
function row(document: Doc, cells: readonly string[]): void {
  const y = document.y;
  let lowest = y;
  for (const [i, cell] of cells.entries()) {
    document.font(i === 0 ? 'words' : 'figures').fontSize(SMALL_PT);
    document.text(cell, MARGIN_PT + i * COLUMN_PT, y, i === cells.length - 1 ? {} : { width: COLUMN_PT - 8 });
    lowest = Math.max(lowest, document.y);
  }
  document.y = lowest + 2;
}

/** One confirmation as a page that travels with the work: verdict, error part by part, settings, conditions. A4. */
export function writeCertificate(certificate: Certificate): Promise<Buffer> {
  const { title, verdict, facts, parts, settings, remarks, fingerprint } = certificate;
  return textPdf({ title, ...isoA(4) }, (document) => {
    document.font('words').fontSize(20).text(title);
    document.moveDown(0.4).fontSize(13).text(verdict);
    head(document, 'What was checked');
    for (const [name, words] of facts) row(document, [name, words]);
    head(document, 'Error of the cut against the print, as it was left');
    row(document, ['', 'value', 'expanded uncertainty, k = 2']);
    for (const cells of parts) row(document, cells);
    if (settings.length > 0) head(document, 'Settings of the machine at that time');
    for (const cells of settings) row(document, cells);
    head(document, 'What these figures mean');
    for (const words of remarks) document.font('words').text(words, MARGIN_PT).moveDown(0.3);
    document.moveDown(1).font('figures').fontSize(7.5).text(`SHA-256 of what stands above: ${fingerprint}`, MARGIN_PT);
  });
}
