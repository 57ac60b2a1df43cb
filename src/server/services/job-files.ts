import 'server-only';
import type { VectorImage } from '@/formats/vector-drawing';
import type { Load } from '@/core/geometry/load';
import type { LineChoice } from '@/core/layout/job-draft';
import { fail, ok, type Result } from '@/core/result';
import type { Route } from '@/core/shop/words';
import { identity } from '@/core/geometry/affine';
import type { SetupRow } from '@/db/queries/shop';
import type { JOB_FILE_KINDS } from '@/db/schema/job';
import { writeDxf } from '@/formats/dxf/write-dxf';
import { writeHpgl, type HpglWriteError } from '@/formats/hpgl/hpgl';
import { writeSvg } from '@/formats/svg/write-svg';
import type { PreparedItem } from '@/shapes/prepared-item';
import { fileNamePart } from '@/formats/file-name';
import {
  blockDrawing,
  cutSheet,
  cutterPaths,
  printSheet,
  type JobFileItem,
  type JobSheet,
} from '../documents/job-drawing';

import { writePdf } from '../documents/print-pdf';
import { refusal, type Refusal } from './actor';
import { makePrintablePicture } from './decoder';
import { moveOnPage, type FileCorrection } from './job-correction';
import type { ArtRow, LockedContent } from './job-content';

type Kind = (typeof JOB_FILE_KINDS)[number];

export interface JobFile {
  readonly kind: Kind;
  readonly name: string;
  readonly content: Buffer;
}

interface SheetOrder {
  readonly content: LockedContent;
  readonly items: readonly PreparedItem[];
  readonly art: readonly ArtRow[];
  readonly hasOwnMarks: boolean;
  /** Where the print file holds the cut lines as well: what moves them. */
  readonly correction: FileCorrection | null;
}

/** Words of which end leads stand between the marks of the leading end, where the inset leaves room for them. */
function wordsPlace({ page, markBoxes, draft }: LockedContent): JobSheet['words'] {
  const [first] = markBoxes;
  if (!first || draft.insetMm < 12) return null;
  // Under the upper edge of the marks, outside the usable area.
  return { at: { x: page.widthMm / 2, y: page.lengthMm - draft.insetMm + 2 }, heightMm: 2.5 };
}

async function pictureOf(item: LockedContent['draft']['items'][number], art: readonly ArtRow[]) {
  if (item.art.kind !== 'picture') return ok(null);
  const { fileId, fileName } = item.art;
  const row = art.find((a) => a.id === fileId);
  if (!row) return fail(refusal(`The picture ${fileName} was not kept: place it again.`));
  const picture = await makePrintablePicture<Pick<VectorImage, 'format' | 'content'>>(row.content);
  return picture.ok ? picture : fail(refusal(`${fileName}: ${picture.error}`));
}

/** One page of a job with everything its print files draw. */
export async function sheetOf(order: SheetOrder): Promise<Result<JobSheet, Refusal>> {
  const { content, items, art, hasOwnMarks, correction } = order;
  const { draft, page } = content;
  const ready: JobFileItem[] = [];
  for (const { id, artBox, cuts, scores, shapes } of items) {
    const item = draft.items.find((i) => i.id === id);
    if (!item) continue;
    const picture = await pictureOf(item, art);
    if (!picture.ok) return picture;
    ready.push({ id, artBox, cuts, scores, shapes, isMirrored: draft.isMirrored, picture: picture.value });
  }
  return ok({
    title: content.title,
    ...page,
    marks: hasOwnMarks ? content.markBoxes : [],
    words: hasOwnMarks ? wordsPlace(content) : null,
    items: ready,
    placements: content.placements,
    cutMove: correction ? moveOnPage(correction.sixNumbers, correction.load, page) : identity<'page'>(),
  });
}

const fileName = (title: string, what: string, type: string): string => `${fileNamePart(title)}-${what}.${type}`;

interface FileOrder {
  readonly route: Route;
  readonly row: SetupRow;
  readonly spotInk: string;
}

/** The files that are printed, by the setup's route. */
export async function printFiles(sheet: JobSheet, { route, row, spotInk }: FileOrder): Promise<readonly JobFile[]> {
  const made = (kind: Kind, what: string, body: string | Buffer): JobFile => ({
    kind,
    name: fileName(sheet.title, what, kind.endsWith('pdf') ? 'pdf' : 'svg'),
    content: Buffer.from(body),
  });
  if (route === 'A') {
    const unitsPerInch = row.program?.importScale === '72' ? 72 : 96;
    return [made('drawing', 'drawing', writeSvg(blockDrawing(sheet), { unitsPerInch }))];
  }
  if (route === 'C') return [made('queue-pdf', 'queue', await writePdf(blockDrawing(sheet, spotInk)))];
  if (route !== 'D') return [];
  const print = printSheet(sheet);
  return [
    made('print-pdf', 'print', await writePdf(print)),
    made('print-svg', 'print', writeSvg(print, { unitsPerInch: 96 })),
  ];
}

const HPGL_REFUSALS: Readonly<Record<HpglWriteError['kind'], string>> = {
  negative:
    'Corrected, some cut lines would lie before the file\u2019s origin, where a cutter cannot follow. Bring the cut nearer with the machine\u2019s offset first.',
  'beyond-material':
    'Corrected, some cut lines would run off the sheet. Bring the cut nearer with the machine\u2019s offset first.',
  empty: 'There is nothing to cut.',
};

export interface CutOrder {
  readonly load: Load;
  readonly correction: FileCorrection | null;
  readonly lines: LineChoice;
  readonly scoreTool: number;
}

const FILE_WORDS: Readonly<Record<LineChoice, string>> = { all: 'cut', scored: 'score', cut: 'cut-only' };

/** The cut file of a locked layout for one load, with the correction that is in force. */
export function cutFileOf(content: LockedContent, row: SetupRow, order: CutOrder): Result<JobFile, Refusal> {
  const { load, correction, lines, scoreTool } = order;
  const { cutter } = row;
  const sheet: JobSheet = {
    title: content.title,
    ...content.page,
    marks: content.markBoxes,
    words: null,
    items: content.items.map((item) => ({ scores: [], ...item, isMirrored: false, shapes: [], picture: null })),
    placements: content.placements,
    cutMove: moveOnPage(correction?.sixNumbers ?? null, load, content.page),
  };
  const made = (kind: Kind, type: string, text: string) =>
    ok({
      kind,
      name: fileName(content.title, `${FILE_WORDS[lines]}-turned-${load.turnDeg}`, type),
      content: Buffer.from(text),
    });
  if (cutter.fileFormat === 'dxf') return made('cut-dxf', 'dxf', writeDxf(cutSheet(sheet, lines)));
  if (cutter.fileFormat !== 'hpgl')
    return made('cut-svg', 'svg', writeSvg(cutSheet(sheet, lines), { unitsPerInch: 96 }));
  const { scores, cuts, marksOutline, limit } = cutterPaths(sheet, load, {
    across: cutter.fileAcross,
    along: cutter.fileAlong,
  });
  const outline = cutter.hpglOutlineFirst ? { outline: marksOutline } : {};
  const first = lines === 'cut' || scores.length === 0 ? {} : { first: { toolNumber: scoreTool, paths: scores } };
  const written = writeHpgl(lines === 'scored' ? [] : cuts, {
    ...{ toolNumber: cutter.hpglTool, ...outline, limit },
    ...first,
  });
  return written.ok ? made('cut-hpgl', 'hpgl', written.value) : fail(refusal(HPGL_REFUSALS[written.error.kind]));
}
