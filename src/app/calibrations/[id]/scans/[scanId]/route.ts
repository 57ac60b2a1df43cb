import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { scanPicture } from '@/server/services/scans';

const Ids = z.object({ id: z.uuid(), scanId: z.uuid() });

/** The small picture that was kept with a scan: handed out as what it is, and to be run by nobody. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string; scanId: string }> },
): Promise<Response> {
  if (!(await isLetIn())) return Response.json({ message: 'Sign in first.' }, { status: 401 });
  const ids = Ids.safeParse(await params);
  const picture = ids.success ? await scanPicture(database(), ids.data.id, ids.data.scanId) : null;
  if (!picture) return Response.json({ message: 'There is no such picture.' }, { status: 404 });
  return new Response(new Uint8Array(picture), {
    headers: {
      'content-type': 'image/jpeg',
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
}
