import type { ComputeCorrectedFileInput, ComputeFile, ComputeSurveyInput } from '@/contracts/compute';
import { aboutCentre } from '@/core/cutting/page-move';
import { fromParameters } from '@/core/geometry/error-parameters';
import { ok, type Result } from '@/core/result';
import { cutCorrection } from '@/core/setting/correct-cut';
import type { FileProblem, MoveRequest, ReadOptions } from '@/formats/cut-file/cut-file';
import { moveCutFile, surveyCutFile, type CorrectedFile } from '@/formats/cut-file/move-cut-file';

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
  const affine = aboutCentre(cutCorrection(fromParameters<'page'>(error)), pivot);
  return { by, names: cut, move: { affine, ...(bow && { bow: { perMm: -bow.perMm, along: bow.along, pivot } }) } };
}

/** The corrected file in the dress the question came in. */
function presented(file: CorrectedFile, asked: ComputeFile): object {
  const { format, movedCount, remarks, bytes } = file;
  const inside =
    asked.text === undefined
      ? { base64: base64Of(bytes) }
      : { text: new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes) };
  return { format, movedCount, remarks, file: inside };
}

/** Colours, pens and layers of a drawing, and what is to be known before it is corrected. Its lines are only for pictures. */
export function computeSurvey({ file }: ComputeSurveyInput): Result<object, FileProblem> {
  const survey = surveyCutFile(bytesOf(file), optionsOf(file));
  if (!survey.ok) return survey;
  const { format, widthMm, heightMm, groups, remarks } = survey.value;
  return ok({ format, widthMm, heightMm, groups, remarks });
}

/** A cut file with its cut lines moved. */
export function computeCorrectedFile(input: ComputeCorrectedFileInput): Result<object, FileProblem> {
  const moved = moveCutFile(bytesOf(input.file), requestOf(input), optionsOf(input.file));
  return moved.ok ? ok(presented(moved.value, input.file)) : moved;
}
