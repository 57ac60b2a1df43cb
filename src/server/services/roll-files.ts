import 'server-only';
import { fail, ok, type Result } from '@/core/result';
import type { RollStrip } from '@/core/target/roll-strip';
import { MM_PER_POINT } from '@/core/units/length';
import { writeDxf } from '@/formats/dxf/write-dxf';
import { writeHpgl } from '@/formats/hpgl/hpgl';
import { writeSvg } from '@/formats/svg/write-svg';
import { writePdf } from '../documents/print-pdf';
import { cutStretch, cutStripPaths, drawnStretch, printedStretch, wholeStrip } from '../documents/roll-drawing';
import { refusal, type Refusal } from './actor';
import type { MadeFile } from './files';
import type { RollRecord } from './roll-read';
import { stripOf } from './rolls';
import { spotInkOf } from './spot-ink';

export const ROLL_FILE_KINDS = [
  'pages-pdf',
  'long-pdf',
  'queue-pdf',
  'piece-svg',
  'piece-pdf',
  'cut-svg',
  'cut-dxf',
  'cut-hpgl',
] as const;
export type RollFileKind = (typeof ROLL_FILE_KINDS)[number];

/** A page of a PDF is at most so many points long. Source: PDF 1.7 (ISO 32000-1), annex C, from memory. */
const LONGEST_PAGE_MM = 14_400 * MM_PER_POINT;

const PIECE = { first: 1, last: 1 };

function pagesOf(strip: RollStrip, draw: (no: number) => ReturnType<typeof printedStretch>) {
  return Array.from({ length: strip.stations }, (_, i) => draw(i + 1));
}

type Body = Promise<Result<string | Buffer, Refusal>>;

const done = async (body: string | Promise<Buffer>): Body => ok(await body);

/** What each kind is made of. */
const MAKERS: Readonly<Record<RollFileKind, (strip: RollStrip, record: RollRecord) => Body>> = {
  'pages-pdf': (strip) => done(writePdf(...pagesOf(strip, (no) => printedStretch(strip, { first: no, last: no })))),
  'long-pdf': async (strip) =>
    strip.stations * strip.spacingMm > LONGEST_PAGE_MM
      ? fail(refusal(`One page of a PDF is at most ${Math.floor(LONGEST_PAGE_MM)} mm long: take the strip as pages.`))
      : done(writePdf(printedStretch(strip, wholeStrip(strip)))),
  'queue-pdf': (strip, { setupRow }) => {
    const ink = spotInkOf(setupRow);
    return done(writePdf(...pagesOf(strip, (no) => drawnStretch(strip, { first: no, last: no }, ink))));
  },
  'piece-svg': (strip, { setupRow }) =>
    done(writeSvg(drawnStretch(strip, PIECE), { unitsPerInch: setupRow.program?.importScale === '72' ? 72 : 96 })),
  'piece-pdf': (strip, { setupRow }) => done(writePdf(drawnStretch(strip, PIECE, spotInkOf(setupRow)))),
  'cut-svg': (strip) => done(writeSvg(cutStretch(strip, wholeStrip(strip)), { unitsPerInch: 'mm' })),
  'cut-dxf': (strip) => done(writeDxf(cutStretch(strip, wholeStrip(strip)))),
  'cut-hpgl': (strip, { setupRow: { cutter } }) => {
    const paths = cutStripPaths(strip, { across: cutter.fileAcross, along: cutter.fileAlong });
    const made = writeHpgl(paths);
    return Promise.resolve(
      made.ok
        ? ok(made.value)
        : fail(refusal('The cut lines of this strip cannot be written as plotter commands: take the SVG or DXF.')),
    );
  },
};

const MEDIA: Readonly<Record<string, string>> = {
  svg: 'image/svg+xml',
  pdf: 'application/pdf',
  dxf: 'image/vnd.dxf',
  hpgl: 'application/vnd.hp-hpgl',
};

/** One file of a strip. */
export async function makeRollFile(record: RollRecord, kind: RollFileKind): Promise<Result<MadeFile, Refusal>> {
  if (record.roll.kind === 'run') return fail(refusal('A run is printed and cut from its own files.'));
  const [what = '', type = ''] = kind.split('-');
  const body = await MAKERS[kind](stripOf(record.roll), record);
  if (!body.ok) return body;
  const name = `roll-strip-${what}.${type}`;
  return ok({ name, mediaType: MEDIA[type] ?? 'application/octet-stream', body: body.value });
}
