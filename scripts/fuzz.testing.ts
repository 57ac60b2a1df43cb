/**
 * Reads mutants of real files of one kind and tells how it went: `scripts/fuzz.testing.ts <kind> <mutants>`, in a process of its own.
 * A line every hundred mutants, and at the end the longest answer and the most memory, as JSON.
 */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { COMPUTATIONS } from '@/compute/computations';
import { seededRng, type Rng } from '@/core/math/random';
import { IMPORT_COLUMNS } from '@/server/services/import-columns';
import { readArchive, ArchiveRefused } from '@/server/services/archive-read';
import { parseReadingList } from '@/formats/csv/reading-list';
import { readTable } from '@/formats/csv/read-table';
import { readImage, type DecodeJpeg } from '@/formats/image/read-image';
import { openPng } from '@/formats/image/png-source';

const decodeJpeg: DecodeJpeg = async (file) => {
  const bytes = Buffer.from(await file.arrayBuffer());
  const { data, info } = await sharp(bytes).toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
};

/** A browser has one; here it reads a Blob's own bytes. */
class FileReaderHere {
  result: ArrayBuffer | null = null;
  onload: () => void = () => undefined;
  onerror: () => void = () => undefined;
  readAsArrayBuffer(blob: Blob): void {
    void blob.arrayBuffer().then((bytes) => {
      this.result = bytes;
      this.onload();
    });
  }
}
Object.assign(globalThis, { FileReader: FileReaderHere });

const WIDTH = 300;
const HEIGHT = 220;
const picture = () =>
  sharp(Buffer.from(Array.from({ length: WIDTH * HEIGHT * 3 }, (_, i) => (i * 7 + (i >> 7) * 13) & 255)), {
    raw: { width: WIDTH, height: HEIGHT, channels: 3 },
  });
const gray = () => picture().toColourspace('b-w');

const SVG = `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY c "cut">]><svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60">
<style>.a{fill:#0b6b62;stroke:none} .b{stroke:#c4162a;fill:none}</style><g id="art" transform="translate(2 3) rotate(4)"><circle class="a" cx="30" cy="30" r="20"/>
<path class="b" d="M10 10h50c4 0 8 4 8 8v20a8 8 0 0 1-8 8H10z" id="&c;"/><rect x="1" y="2" width="9" height="8" rx="2" style="stroke:red"/><polyline points="1,1 5,5 9,1"/><use href="#art"/></g></svg>`;
const DXF = [
  '0',
  'SECTION',
  '2',
  'HEADER',
  '9',
  '$INSUNITS',
  '70',
  '4',
  '0',
  'ENDSEC',
  '0',
  'SECTION',
  '2',
  'ENTITIES',
  '0',
  'LINE',
  '8',
  'cut',
  '10',
  '0.0',
  '20',
  '0.0',
  '11',
  '40.0',
  '21',
  '10.0',
  '0',
  'CIRCLE',
  '8',
  'cut',
  '10',
  '20',
  '20',
  '20',
  '40',
  '9.5',
  '0',
  'LWPOLYLINE',
  '8',
  'art',
  '90',
  '3',
  '70',
  '1',
  '10',
  '0',
  '20',
  '0',
  '42',
  '0.5',
  '10',
  '9',
  '20',
  '0',
  '10',
  '9',
  '20',
  '9',
  '0',
  'ARC',
  '8',
  'cut',
  '10',
  '5',
  '20',
  '5',
  '40',
  '3',
  '50',
  '10',
  '51',
  '200',
  '0',
  'ENDSEC',
  '0',
  'EOF',
  '',
].join('\r\n');
const HPGL = `IN;SP1;PU400,400;PD800,400,800,800,400,800,400,400;PU;AA600,600,90,5;CI200,5;PA1000,1000;PR40,-40;SP2;PE<=7?;PU0,0;EA400,400;LBtext\x03;SP0;`;
const CSV = `Date;Left border (in);right mm;top;bottom;material;note\r\n26.11.2026;0,1;3;3;3;film;"a; b"\r\n27.11.2026 09:30;2,5 mm;3;3;3;film;=x\r\n`;
const LIST = 'spot,axis,mm\n1,across,0.20\n1,along,-0.15\n2,across,1/8"\n';

function archive(): Buffer {
  const head = {
    format: 'red-plumb-archive',
    version: 1,
    schema: '0022_archive',
    madeAt: '2026-11-26T12:00:00.000Z',
    shop: { id: '0b9d1c2e-0000-4000-8000-000000000001', name: 'x', isDemo: false },
    rows: { shop: 1, person: 2 },
  };
  const rows = [
    `["shop", {"id": "0b9d1c2e-0000-4000-8000-000000000001", "name": "x"}]`,
    ...[1, 2].map((n) => `["person", {"id": "0b9d1c2e-0000-4000-8000-00000000001${n}", "name": "p${n}"}]`),
  ];
  return Buffer.from([JSON.stringify(head), ...rows, JSON.stringify({ rows: 3, sha256: '0'.repeat(64) })].join('\n'));
}

interface Kind {
  readonly seeds: readonly Buffer[];
  readonly read: (bytes: Buffer) => unknown;
}

const readPicture = (bytes: Buffer) => readImage(new Blob([new Uint8Array(bytes)]), { decodeJpeg, openPng });

function readDrawing(bytes: Buffer): void {
  const file = { base64: bytes.toString('base64') };
  COMPUTATIONS.drawing.run({ file });
  COMPUTATIONS['corrected-file'].run({
    file,
    cut: ['cut', 'pen 1', '#c4162a'],
    error: { rotationRad: 0.002 },
    centre: { xMm: 40, yMm: 30 },
  });
}

const folder = mkdtempSync(join(tmpdir(), 'red-plumb-fuzz-'));
async function readArchiveOf(bytes: Buffer): Promise<void> {
  const path = join(folder, 'archive.gz');
  writeFileSync(path, bytes);
  try {
    const { rows } = await readArchive(path);
    while ((await rows.next()).done !== true);
  } catch (error) {
    if (!(error instanceof ArchiveRefused)) throw error;
  }
}

const KINDS: Readonly<Record<string, () => Promise<Kind>>> = {
  png: async () => ({
    seeds: [
      await picture().png().toBuffer(),
      await gray().png().toBuffer(),
      await picture().ensureAlpha().png({ palette: true }).toBuffer(),
    ],
    read: readPicture,
  }),
  jpeg: async () => ({
    seeds: [await picture().jpeg().toBuffer(), await gray().jpeg({ progressive: true }).toBuffer()],
    read: readPicture,
  }),
  tiff: async () => ({
    seeds: [
      await gray().tiff({ compression: 'lzw' }).toBuffer(),
      await picture().tiff({ compression: 'lzw', predictor: 'horizontal' }).toBuffer(),
      await picture().tiff({ compression: 'deflate', predictor: 'horizontal' }).toBuffer(),
      await gray().tiff({ compression: 'packbits' }).toBuffer(),
      await picture().tiff({ compression: 'none' }).toBuffer(),
      await gray().tiff({ compression: 'lzw', tile: true, tileWidth: 64, tileHeight: 64 }).toBuffer(),
      await picture().toColourspace('rgb16').tiff({ compression: 'deflate' }).toBuffer(),
    ],
    read: readPicture,
  }),
  csv: () =>
    Promise.resolve({
      seeds: [Buffer.from(CSV), Buffer.from(LIST)],
      read: (bytes: Buffer) => {
        const text = bytes.toString('utf8');
        readTable(text, { columns: IMPORT_COLUMNS['daily-checks'], system: 'mm', isDayFirst: true, mostLines: 1000 });
        parseReadingList(text, 'mm');
      },
    }),
  archive: () => Promise.resolve({ seeds: [archive()], read: (bytes: Buffer) => readArchiveOf(gzipSync(bytes)) }),
  'archive-packed': () => Promise.resolve({ seeds: [gzipSync(archive())], read: readArchiveOf }),
  svg: () => Promise.resolve({ seeds: [Buffer.from(SVG)], read: readDrawing }),
  dxf: () => Promise.resolve({ seeds: [Buffer.from(DXF)], read: readDrawing }),
  hpgl: () => Promise.resolve({ seeds: [Buffer.from(HPGL)], read: readDrawing }),
};

const EXTREMES = [0, 1, 0x7f, 0x80, 0xff, 0x100, 0x7fff, 0x8000, 0xffff, 0x10000, 0x7fffffff, 0x80000000, 0xffffffff];
const below = (rng: Rng, n: number): number => Math.floor(rng() * Math.max(1, n));

type Change = (bytes: Buffer, rng: Rng, piece: { readonly at: number; readonly end: number }) => Buffer;

/** A digit of a text grows into a long number. */
const growNumber: Change = (bytes, rng) => {
  const text = bytes.toString('latin1');
  const found = [...text.matchAll(/\d+/g)];
  const one = found[below(rng, found.length)];
  if (!one) return bytes;
  const number = ['9'.repeat(1 + below(rng, 400)), '1e308', '-1', '0', '4294967296'][below(rng, 5)] ?? '';
  return Buffer.from(text.slice(0, one.index) + number + text.slice(one.index + one[0].length), 'latin1');
};

const CHANGES: readonly Change[] = [
  // One bit.
  (bytes, rng, { at }) => {
    bytes[at] = (bytes[at] ?? 0) ^ (1 << below(rng, 8));
    return bytes;
  },
  // A piece of one byte only.
  (bytes, rng, { at, end }) => bytes.fill(below(rng, 256), at, end),
  // Cut off.
  (bytes, _, { at }) => bytes.subarray(0, at),
  // A piece left out.
  (bytes, _, { at, end }) => Buffer.concat([bytes.subarray(0, at), bytes.subarray(end)]),
  // A piece over and over.
  (bytes, rng, { at, end }) => {
    const again = Array.from({ length: 1 + below(rng, 40) }, () => bytes.subarray(at, end));
    return Buffer.concat([bytes.subarray(0, at), ...again, bytes.subarray(at)]);
  },
  // A whole number at its extremes.
  (bytes, rng, { at }) => {
    const value = EXTREMES[below(rng, EXTREMES.length)] ?? 0;
    if (at + 4 <= bytes.length) bytes[rng() < 0.5 ? 'writeUInt32LE' : 'writeUInt32BE'](value, at);
    return bytes;
  },
  growNumber,
  // A piece from elsewhere.
  (bytes, rng, { at, end }) => {
    const from = below(rng, bytes.length);
    bytes.copy(bytes, at, from, from + end - at);
    return bytes;
  },
];

/** One change of a file, of any kind. */
function mutate(bytes: Buffer, rng: Rng): Buffer {
  const at = below(rng, bytes.length);
  const piece = { at, end: at + 1 + below(rng, Math.min(64, bytes.length - at)) };
  return CHANGES[below(rng, CHANGES.length)]?.(bytes, rng, piece) ?? bytes;
}

async function main(name: string, count: number): Promise<void> {
  const kind = await KINDS[name]?.();
  if (!kind) throw new Error(`no kind ${name}`);
  const rng = seededRng(name.length * 1000 + 7);
  let longestMs = 0;
  for (const seed of kind.seeds) await kind.read(Buffer.from(seed));
  for (let n = 0; n < count; n++) {
    let mutant = Buffer.from(kind.seeds[n % kind.seeds.length] ?? Buffer.alloc(0));
    for (let changes = 1 + below(rng, 4); changes > 0 && mutant.length > 0; changes--)
      mutant = Buffer.from(mutate(mutant, rng));
    const from = performance.now();
    try {
      await kind.read(mutant);
    } catch (error) {
      const path = join(tmpdir(), `red-plumb-mutant-${name}-${n}`);
      writeFileSync(path, mutant);
      throw new Error(`mutant ${n} of ${name} (kept as ${path}) was not answered in words`, { cause: error });
    }
    longestMs = Math.max(longestMs, performance.now() - from);
    if (n % 100 === 99) process.stdout.write('.\n');
  }
  rmSync(folder, { recursive: true, force: true });
  const mostBytes = process.resourceUsage().maxRSS * 1024;
  process.stdout.write(`${JSON.stringify({ count, longestMs: Math.round(longestMs), mostBytes })}\n`);
  process.exit(0);
}

const [name = '', count = '10000'] = process.argv.slice(2);
void main(name, Number(count));
