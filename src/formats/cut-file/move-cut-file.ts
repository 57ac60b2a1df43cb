import type { Affine } from '@/core/geometry/affine';
import { fail, ok, type Result } from '@/core/result';
import { moveDxf, surveyDxf } from '../dxf/move-dxf';
import { moveHpgl, surveyHpgl } from '../hpgl/move-hpgl';
import { moveSvg, surveySvg } from '../svg/move-svg';
import {
  MOST_CHARACTERS,
  problem,
  type CutFileFormat,
  type FileProblem,
  type MoveRequest,
  type ReadOptions,
  type Remark,
  type Survey,
} from './cut-file';

/**
 * Bytes as a text of one character each, and back: what is not touched keeps its bytes, whatever its encoding. All
 * that is written is plain ASCII.
 */
const latin = new TextDecoder('latin1');
const PIECE = 0x8000;

function textOf(bytes: Uint8Array): string {
  // TextDecoder's "latin1" is windows-1252: 0x80 to 0x9f would change. They are put back one by one where there are any.
  if (!bytes.some((byte) => byte >= 0x80 && byte < 0xa0)) return latin.decode(bytes);
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += PIECE) parts.push(String.fromCharCode(...bytes.subarray(i, i + PIECE)));
  return parts.join('');
}

function bytesOf(text: string): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}

const BYTE_ORDER_MARK = '\u00ef\u00bb\u00bf';

interface Opened {
  readonly format: CutFileFormat;
  readonly mark: string;
  readonly text: string;
}

/** SVG begins with "<", a DXF with a group code alone on its line, a plotter file with an instruction. */
function open(bytes: Uint8Array): Result<Opened, FileProblem> {
  if (bytes.length > MOST_CHARACTERS) return fail(problem('too-large', 'file', 'More than 64 MB.'));
  if (bytes.length === 0) return fail(problem('not-a-drawing', 'file', 'The file is empty.'));
  const isWide = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  if (isWide) return fail(problem('not-a-drawing', 'file', 'The file is in UTF-16: save it as UTF-8.'));
  const whole = textOf(bytes);
  const mark = whole.startsWith(BYTE_ORDER_MARK) ? BYTE_ORDER_MARK : '';
  const text = whole.slice(mark.length);
  const head = text.slice(0, 4096).trimStart();
  if (head.startsWith('<')) return ok({ format: 'svg', mark, text });
  if (/^\d{1,4}[ \t]*[\r\n]/.test(head) || head.startsWith('AutoCAD Binary DXF'))
    return ok({ format: 'dxf', mark, text });
  if (/^(?:\u001b|[A-Za-z]{2})/.test(head)) return ok({ format: 'hpgl', mark, text });
  return fail(problem('not-a-drawing', 'file', 'The file is neither SVG nor DXF nor HPGL.'));
}

/** What a cut file draws, by colour (or pen) and by layer. */
export function surveyCutFile(bytes: Uint8Array, options: ReadOptions = {}): Result<Survey, FileProblem> {
  const opened = open(bytes);
  if (!opened.ok) return opened;
  const { format, text } = opened.value;
  if (format === 'svg') return surveySvg(text, options);
  return format === 'dxf' ? surveyDxf(text, options) : surveyHpgl(text);
}

export interface CorrectedFile {
  readonly format: CutFileFormat;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly movedCount: number;
  readonly remarks: readonly Remark[];
}

const isIdentity = (a: Affine<'page', 'page'>): boolean =>
  a.xx === 1 && a.xy === 0 && a.yx === 0 && a.yy === 1 && a.tx === 0 && a.ty === 0;

/**
 * A cut file with the chosen lines moved: same format, every other byte as it was. A move that moves nothing gives the
 * same bytes back.
 * @returns the file with what is to be told about it, or why it was not taken.
 */
export function moveCutFile(
  bytes: Uint8Array,
  request: MoveRequest,
  options: ReadOptions = {},
): Result<CorrectedFile, FileProblem> {
  const opened = open(bytes);
  if (!opened.ok) return opened;
  const { format, mark, text } = opened.value;
  const move = { svg: moveSvg, dxf: moveDxf, hpgl: moveHpgl }[format];
  const moved = move(text, request, options);
  if (!moved.ok) return moved;
  const isStill = isIdentity(request.move.affine) && !request.move.bow;
  return ok({
    format,
    bytes: isStill ? Uint8Array.from(bytes) : bytesOf(mark + moved.value.text),
    movedCount: moved.value.movedCount,
    remarks: moved.value.remarks,
  });
}
