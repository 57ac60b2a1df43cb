import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeValueCard } from './value-card';

const folder = mkdtempSync(join(tmpdir(), 'red-plumb-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
});

it('poppler reads an A5 card with every name and value, figures tall enough to read from a metre away', async () => {
  const path = join(folder, 'card.pdf');
  writeFileSync(
    path,
    await writeValueCard({
      title: 'Low Weir',
      subtitle: 'confirmed 20 May 2026',
      lines: [
        { name: 'CROSS SHIFT', value: '1.60 mm', note: '' },
        { name: 'FEED SHIFT', value: '\u221229.50 mm', note: 'in the program' },
      ],
      footer: 'If a display shows anything else, find out why.',
    }),
  );
  const run = (program: string, ...args: string[]) => execFileSync(program, args, { encoding: 'utf8' });
  const text = run('pdftotext', '-layout', path, '-');
  for (const words of ['Low Weir', 'CROSS SHIFT', '1.60 mm', 'FEED SHIFT', '\u221229.50 mm', 'in the program'])
    expect(text).toContain(words);
  expect(run('pdfinfo', path)).toMatch(/Page size:\s+419\.\d+ x 595\.\d+/);
  expect(run('pdfinfo', path)).toMatch(/Pages:\s+1/);
  const value = /yMin="([\d.]+)"[^>]*yMax="([\d.]+)">1\.60</.exec(run('pdftotext', '-bbox', path, '-'));
  expect(Number(value?.[2]) - Number(value?.[1])).toBeGreaterThan(30);
});

it('the same card gives the same bytes', async () => {
  const card = { title: 'Osier', subtitle: '', lines: [], footer: 'nothing' };
  expect((await writeValueCard(card)).equals(await writeValueCard(card))).toBe(true);
});
