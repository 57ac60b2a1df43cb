import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { picturePaths } from '@/server/services/picture-paths';
import { loadRecord } from '@/server/services/record';
import { pictureOf } from '@/server/services/simulation';

/** The cut sheet of a simulated setup, as paths in the sheet frame. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  if (!(await isLetIn())) return Response.json({ message: 'Sign in first.' }, { status: 401 });
  const { id } = await params;
  const sheetNo = z.coerce.number().int().min(1).max(99).safeParse(new URL(request.url).searchParams.get('sheet'));
  if (!sheetNo.success || !z.uuid().safeParse(id).success)
    return Response.json({ message: 'There is no such sheet.' }, { status: 400 });
  const record = await loadRecord(database(), id);
  if (!record) return Response.json({ message: 'This calibration is not there any more.' }, { status: 404 });
  const face = new URL(request.url).searchParams.get('face') === 'back' ? 'back' : 'front';
  const picture = await pictureOf(database(), record, sheetNo.data, face);
  if (!picture.ok) return Response.json({ message: picture.error.message }, { status: 404 });
  return Response.json(picturePaths(picture.value), { headers: { 'cache-control': 'no-store' } });
}
