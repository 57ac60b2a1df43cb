import 'server-only';
import { isoA } from '@/core/units/sheet-size';
import { textPdf } from './text-pdf';

export interface ValueCard {
  readonly title: string;
  /** Machines, material, when and by whom: small, under the title. */
  readonly subtitle: string;
  readonly lines: readonly { readonly name: string; readonly value: string; readonly note: string }[];
  readonly footer: string;
}

/** Read from a metre away: 12 mm figures. */
const VALUE_PT = 40;
const NAME_PT = 20;
const SMALL_PT = 12;

/** A card to hang on the machine: what each display should show, in figures that are read from a metre away. A5, upright. */
export function writeValueCard(card: ValueCard): Promise<Buffer> {
  return textPdf({ title: card.title, ...isoA(5) }, (document) => {
    document.font('words').fontSize(26).text(card.title);
    document.fontSize(SMALL_PT).text(card.subtitle).moveDown(1);
    for (const { name, value, note } of card.lines) {
      document.font('words').fontSize(NAME_PT).text(name);
      document.font('figures').fontSize(VALUE_PT).text(value);
      if (note !== '') document.font('words').fontSize(SMALL_PT).text(note);
      document.moveDown(0.4);
    }
    document.font('words').fontSize(SMALL_PT).text(card.footer);
  });
}
