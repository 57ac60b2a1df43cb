import 'server-only';
import { fail, ok, type Result } from '@/core/result';
import type { TemplateDiscNo } from '@/core/target/template-discs';
import type { Database } from '@/db/client';
import { findSetup } from '@/db/queries/shop';
import { writeSvg } from '@/formats/svg/write-svg';
import { writePdf } from '../documents/print-pdf';
import { templateDiscDrawing } from '../documents/template-disc-drawing';
import { refusal, type Refusal } from './actor';
import type { MadeFile } from './files';
import { spotInkOf } from './spot-ink';

export const DISC_FILE_TYPES = ['svg', 'pdf', 'mm'] as const;
export type DiscFileType = (typeof DISC_FILE_TYPES)[number];

/**
 * One of the two small discs, for the template of a setup's jobs.
 * @param type svg in the units that the setup's program reads, mm: an SVG in mm for a job that is laid out here.
 */
export async function templateDiscFile(
  database: Database,
  setupId: string,
  discNo: TemplateDiscNo,
  type: DiscFileType,
): Promise<Result<MadeFile, Refusal>> {
  const row = await findSetup(database, setupId);
  if (!row) return fail(refusal('This printer + cutter is not there any more.'));
  const name = `small-disc-${discNo}`;
  if (type === 'pdf') {
    const body = await writePdf(templateDiscDrawing(discNo, spotInkOf(row)));
    return ok({ name: `${name}.pdf`, mediaType: 'application/pdf', body });
  }
  const unitsPerInch = type === 'mm' ? 'mm' : row.program?.importScale === '72' ? 72 : 96;
  const body = writeSvg(templateDiscDrawing(discNo), { unitsPerInch });
  return ok({ name: `${name}.svg`, mediaType: 'image/svg+xml', body });
}
