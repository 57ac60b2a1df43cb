import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';
import { releasedFileOf } from '@/server/services/job-give';

interface Context {
  readonly params: Promise<{ id: string; releaseId: string }>;
}

/** A cut file as it was released: after what had changed was acknowledged. */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const { id, releaseId } = await params;
  const known = z.uuid().safeParse(id).success && z.uuid().safeParse(releaseId).success;
  const file = known ? await releasedFileOf(database(), id, releaseId) : null;
  return file ?? plain(404, 'No such cut was released.');
}
