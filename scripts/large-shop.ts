import { readFileSync } from 'node:fs';
import { blockNamed } from '@/core/target/block';
import { canonicalJson } from '@/core/target/canonical-json';
import { defineSheet } from '@/core/target/sheet-definition';

/** The shop of ten years as one SQL script. @param setups so many printers + cutters. @param per so many calibrations of each. */
export function largeShopScript(setups: number, per: number): string {
  const sheet = canonicalJson(defineSheet({ block: blockNamed('A4'), checkKind: 'full' }));
  const values: Readonly<Record<string, string>> = {
    setups: String(setups),
    per: String(per),
    sheet: `$sheet$${sheet}$sheet$`,
  };
  return readFileSync('scripts/large-shop.sql', 'utf8').replace(
    /:(setups|per|sheet)\b/g,
    (_, name: string) => values[name] ?? '',
  );
}
