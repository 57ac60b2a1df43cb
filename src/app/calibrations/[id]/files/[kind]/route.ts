import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { fileResponse, plain } from '@/server/services/file-response';
import { FILE_KINDS, makeFile } from '@/server/services/files';
import { loadRecord } from '@/server/services/record';
import { planCutFor } from '@/server/services/steps';

const Query = z.object({
  kind: z.enum(FILE_KINDS),
  turn: z.enum(['0', '90', '180', '270']).default('0'),
  face: z.enum(['ink-up', 'ink-down']).default('ink-up'),
});

/** One file of the calibration's sheet, given out as an attachment. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string; kind: string }> },
): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const { id, kind } = await params;
  const query = Query.safeParse({ kind, ...Object.fromEntries(new URL(request.url).searchParams) });
  if (!query.success || !z.uuid().safeParse(id).success)
    return plain(400, 'There is no such file. Go back and take it from its page.');
  const record = await loadRecord(database(), id);
  if (!record) return plain(404, 'This calibration is not there any more.');
  const load = { turnDeg: Number(query.data.turn) as 0 | 90 | 180 | 270, face: query.data.face };
  const made = await makeFile(record, query.data.kind, { plan: planCutFor(record, load, true), load });
  return made.ok ? fileResponse(made.value) : plain(409, made.error.message);
}
