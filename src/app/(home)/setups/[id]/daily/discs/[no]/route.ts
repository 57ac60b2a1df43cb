import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { fileResponse, plain } from '@/server/services/file-response';
import { DISC_FILE_TYPES, templateDiscFile } from '@/server/services/template-discs';

const Asked = z.object({
  id: z.uuid(),
  no: z.enum(['1', '2']),
  as: z.enum(DISC_FILE_TYPES).default('svg'),
});

/** One of the two small discs for a job's template. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string; no: string }> },
): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const asked = Asked.safeParse({ ...Object.fromEntries(new URL(request.url).searchParams), ...(await params) });
  if (!asked.success) return plain(400, 'There is no such disc: ask for 1 or 2, as "svg" or "pdf".');
  const { id, no, as } = asked.data;
  const made = await templateDiscFile(database(), id, no === '1' ? 1 : 2, as);
  return made.ok ? fileResponse(made.value) : plain(404, made.error.message);
}
