import type { ComputeCorrectedFileInput, ComputeFile, ComputeSurveyInput } from '@/contracts/compute';
import { aboutCentre } from '@/core/cutting/page-move';
import { inverseOf } from '@/core/geometry/affine';
import { fromParameters } from '@/core/geometry/error-parameters';
import { ok, type Result } from '@/core/result';
import type { FileProblem, MoveRequest, ReadOptions, Survey } from '@/formats/cut-file/cut-file';
import { moveCutFile, surveyCutFile, type CorrectedFile } from '@/formats/cut-file/move-cut-file';

/** What a mover of cut files is asked, apart from how the file came. */
export interface FileWork {
  readonly bytes: Uint8Array;
  readonly options: ReadOptions;
  /** Absent: only to be looked at. */
  readonly request: MoveRequest | null;
}

function bytesOf({ text, base64 = '' }: ComputeFile): Uint8Array {
  if (text !== undefined) return new TextEncoder().encode(text);
  return Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
}

function base64Of(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 0x8000) parts.push(String.fromCharCode(...bytes.subarray(i, i + 0x8000)));
  return btoa(parts.join(''));
}

const optionsOf = ({ pxPerInch, mmPerUnit }: ComputeFile): ReadOptions => ({ pxPerInch, mmPerUnit });

/**
 * The move that takes an error out: a bow's opposite, then the inverse of the error map about the stated middle. Exact for
 * an error that is affine first and bows what comes out.
 */
function requestOf({ by, cut, error, centre, bow }: ComputeCorrectedFileInput): MoveRequest {
  const pivot = { x: centre.xMm, y: centre.yMm };
  const affine = aboutCentre(inverseOf(fromParameters<'page'>(error)), pivot);
  return { by, names: cut, move: { affine, ...(bow && { bow: { perMm: -bow.perMm, along: bow.along, pivot } }) } };
}

export const surveyWork = ({ file }: ComputeSurveyInput): FileWork => ({
  bytes: bytesOf(file),
  options: optionsOf(file),
  request: null,
});

export const correctionWork = (input: ComputeCorrectedFileInput): FileWork => ({
  bytes: bytesOf(input.file),
  options: optionsOf(input.file),
  request: requestOf(input),
});

/** The corrected file in the dress the question came in. */
export function presented(file: CorrectedFile, asked: ComputeFile): object {
  const { format, movedCount, remarks, bytes } = file;
  const inside =
    asked.text === undefined ? { base64: base64Of(bytes) } : { text: new TextDecoder('utf-8').decode(bytes) };
  return { format, movedCount, remarks, file: inside };
}

/** Looks at a drawing or moves its lines, here and now. */
export function doFileWork({ bytes, options, request }: FileWork) {
  return request ? moveCutFile(bytes, request, options) : surveyCutFile(bytes, options);
}

/** What a program needs of a survey: its lines are only for pictures. */
export const surveyed = ({ format, widthMm, heightMm, groups, remarks }: Survey): object => ({
  format,
  widthMm,
  heightMm,
  groups,
  remarks,
});

/** Colours, pens and layers of a drawing, and what is to be known before it is corrected. */
export function computeSurvey(input: ComputeSurveyInput): Result<object, FileProblem> {
  const { bytes, options } = surveyWork(input);
  const survey = surveyCutFile(bytes, options);
  return survey.ok ? ok(surveyed(survey.value)) : survey;
}

/** A cut file with its cut lines moved. */
export function computeCorrectedFile(input: ComputeCorrectedFileInput): Result<object, FileProblem> {
  const { bytes, options, request } = correctionWork(input);
  if (!request) throw new Error('a correction always asks for a move');
  const moved = moveCutFile(bytes, request, options);
  return moved.ok ? ok(presented(moved.value, input.file)) : moved;
}
