import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';
import { lockedFileOf } from '@/server/services/job-give';

interface Context {
  readonly params: Promise<{ id: string; kind: string }>;
}

/** A print file of a locked job, the same bytes every time. From a layout that can still change nothing is given out. */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const { id, kind } = await params;
  const known = z.uuid().safeParse(id).success;
  const file = known ? await lockedFileOf(database(), id, kind) : null;
  return file ?? plain(404, 'There is no such file: lock the job first.');
}
