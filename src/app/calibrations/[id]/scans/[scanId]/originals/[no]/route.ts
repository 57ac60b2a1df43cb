import { z } from 'zod';
import { MOST_SCANS } from '@/core/scan/scan-result';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { keepOriginal, keptOriginal, MOST_ORIGINAL_BYTES, type OriginalPlace } from '@/server/services/scan-originals';
import { takingUpload } from '@/server/services/taking-upload';

const Place = z.object({
  id: z.uuid(),
  scanId: z.uuid(),
  no: z.coerce
    .number()
    .int()
    .min(0)
    .max(MOST_SCANS - 1),
});

interface Context {
  readonly params: Promise<{ id: string; scanId: string; no: string }>;
}

async function placeOf({ params }: Context): Promise<OriginalPlace | null> {
  const place = Place.safeParse(await params);
  return place.success ? { calibrationId: place.data.id, scanId: place.data.scanId, no: place.data.no } : null;
}

const answer = (status: number, message: string): Response => Response.json({ message }, { status });

/** Keeps the original of a picture that was measured: its bytes as the body, its name in the address. */
export const PUT = (request: Request, context: Context): Promise<Response> =>
  takingUpload(request, answer, () => takeOriginal(request, context));

async function takeOriginal(request: Request, context: Context): Promise<Response> {
  if (!(await isLetIn())) return answer(401, 'Sign in first.');
  const place = await placeOf(context);
  if (!place) return answer(404, 'There is no such picture.');
  if (Number(request.headers.get('content-length') ?? 0) > MOST_ORIGINAL_BYTES)
    return answer(413, 'The picture is larger than 64 MB: it is not kept. What was measured of it is.');
  const name = new URL(request.url).searchParams.get('name') ?? 'scan';
  const kept = await keepOriginal(database(), place, { name, content: new Uint8Array(await request.arrayBuffer()) });
  return kept.ok ? Response.json({ ok: true }) : answer(422, kept.error.message);
}

/** Hands out an original as it came: to be saved, and to be run by nobody. */
export async function GET(_request: Request, context: Context): Promise<Response> {
  if (!(await isLetIn())) return answer(401, 'Sign in first.');
  const place = await placeOf(context);
  const kept = place && (await keptOriginal(database(), place));
  if (!kept) return answer(404, 'There is no such picture.');
  return new Response(new Uint8Array(kept.content), {
    headers: {
      'content-type': kept.mediaType,
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(kept.fileName)}`,
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
}
