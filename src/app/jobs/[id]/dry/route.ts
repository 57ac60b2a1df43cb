import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';
import { dryCalendar } from '@/server/services/job-give';

interface Context {
  readonly params: Promise<{ id: string }>;
}

/** The hour at which a print is dry, for any calendar (ICS). */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const { id } = await params;
  const file = z.uuid().safeParse(id).success ? await dryCalendar(database(), id) : null;
  return file ?? plain(404, 'This job waits for nothing to dry.');
}
