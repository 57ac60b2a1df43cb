import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { makeRollFile, ROLL_FILE_KINDS } from '@/server/services/roll-files';
import { loadRoll } from '@/server/services/roll-read';
import { fileResponse, plain } from '@/server/services/file-response';

const Asked = z.object({ id: z.uuid(), kind: z.enum(ROLL_FILE_KINDS) });

/** One file of a roll strip, given out as an attachment. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string; kind: string }> },
): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const asked = Asked.safeParse(await params);
  if (!asked.success) return plain(400, 'There is no such file. Go back and take it from its page.');
  const record = await loadRoll(database(), asked.data.id);
  if (!record) return plain(404, 'This roll is not there any more.');
  const made = await makeRollFile(record, asked.data.kind);
  return made.ok ? fileResponse(made.value) : plain(409, made.error.message);
}
