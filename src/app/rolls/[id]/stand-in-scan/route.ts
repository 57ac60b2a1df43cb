import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';
import { scanPieces } from '@/server/services/roll-glass';

const Asked = z.object({
  id: z.uuid(),
  first: z.coerce.number().int().min(1).max(100_000),
  turn: z.enum(['0', '180']).default('0'),
});

/** What the stand-in scanner makes of pieces of a simulated roll: a gray PNG. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const asked = Asked.safeParse({ ...Object.fromEntries(new URL(request.url).searchParams), ...(await params) });
  if (!asked.success) return plain(400, 'There is no such roll, station or turn.');
  const { id, first, turn } = asked.data;
  const scan = await scanPieces(database(), id, { firstNo: first, turnDeg: turn === '180' ? 180 : 0 });
  if (!scan.ok) return plain(409, scan.error.message);
  return new Response(new Uint8Array(scan.value), {
    headers: { 'content-type': 'image/png', 'cache-control': 'no-store' },
  });
}
