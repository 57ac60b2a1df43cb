import { readFileSync } from 'node:fs';
import { polyline } from '@/formats/vector-drawing';
import type { JobDraft } from '@/core/layout/job-draft';
import type { LockedContent } from '@/server/services/job-content';
import { blockNamed } from '@/core/target/block';
import { canonicalJson } from '@/core/target/canonical-json';
import { defineSheet } from '@/core/target/sheet-definition';

const ITEM = { id: '6c1f2f0e-7d57-4f0e-9d0a-5b1f6f5f7a10', name: 'Disc', side: 38, pitch: 42 };

/** What every job of it makes: sixty discs on three sheets. */
const DRAFT: JobDraft = {
  ...{ laysOut: 'here', form: 'sheet', page: { name: 'A4', widthMm: 210, lengthMm: 297 } },
  ...{ insetMm: 10, backInsetMm: null, isMirrored: false, gapMm: 4, spareFrontMm: 0, spareRearMm: 0, artBox: null },
  ...{ edge: { kind: 'border', mm: 1 }, yieldShare: 0.95, warmingK: 0 },
  items: [
    {
      ...{ id: ITEM.id, name: ITEM.name, quantity: 60, widthMm: 36, lengthMm: 36, mayTurn: false },
      art: { kind: 'plain', shape: 'ellipse', cornerMm: 0 },
    },
  ],
};

const round = Array.from({ length: 65 }, (_, i) => {
  const turn = ((i % 64) * Math.PI) / 32;
  return { x: (ITEM.side / 2) * (1 + Math.cos(turn)), y: (ITEM.side / 2) * (1 + Math.sin(turn)) };
});

const LAYOUT: LockedContent = {
  ...{ version: 1, title: 'Discs', draft: DRAFT, page: { widthMm: 210, lengthMm: 297 }, sheets: 3 },
  placements: Array.from({ length: 20 }, (_, i) => ({
    itemId: ITEM.id,
    box: {
      left: 22 + ITEM.pitch * (i % 4),
      bottom: 40 + ITEM.pitch * Math.floor(i / 4),
      width: ITEM.side,
      height: ITEM.side,
    },
    turnDeg: 0,
  })),
  markBoxes: [
    { left: 10, bottom: 10, width: 8, height: 8 },
    { left: 192, bottom: 10, width: 8, height: 8 },
    { left: 10, bottom: 279, width: 8, height: 8 },
    { left: 192, bottom: 279, width: 8, height: 8 },
  ],
  items: [
    {
      id: ITEM.id,
      artBox: { left: 1, bottom: 1, width: 36, height: 36 },
      cuts: [polyline(round)],
    },
  ],
  ...{ art: {}, fileCorrection: null },
};

/** The shop of ten years as one SQL script. @param setups so many printers + cutters. @param per so many calibrations of each. */
export function largeShopScript(setups: number, per: number): string {
  const sheet = canonicalJson(defineSheet({ block: blockNamed('A4'), checkKind: 'full' }));
  const values: Readonly<Record<string, string>> = {
    setups: String(setups),
    per: String(per),
    sheet: `$sheet$${sheet}$sheet$`,
    draft: `$draft$${JSON.stringify(DRAFT)}$draft$::jsonb`,
    layout: `$layout$${canonicalJson(LAYOUT)}$layout$`,
  };
  return readFileSync('scripts/large-shop.sql', 'utf8').replace(
    /:(setups|per|sheet|draft|layout)\b/g,
    (_, name: string) => values[name] ?? '',
  );
}
