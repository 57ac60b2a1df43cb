import { z } from 'zod';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { artOf } from '@/server/services/job-give';
import { keepArt, MOST_ART_BYTES } from '@/server/services/jobs';
import { takingUpload } from '@/server/services/taking-upload';

const Place = z.object({ id: z.uuid(), fileId: z.uuid() });

interface Context {
  readonly params: Promise<{ id: string; fileId: string }>;
}

const answer = (status: number, message: string): Response => Response.json({ message }, { status });

/** Keeps art of a job that is being laid out: its bytes as the body, its name in the address. */
export const PUT = (request: Request, context: Context): Promise<Response> =>
  takingUpload(request, answer, () => takeArt(request, context));

async function takeArt(request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return answer(401, 'Sign in first.');
  const place = Place.safeParse(await params);
  if (!place.success) return answer(404, 'There is no such job.');
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > MOST_ART_BYTES) return answer(413, 'The file is larger than 64 MB.');
  const name = new URL(request.url).searchParams.get('name') ?? 'art';
  const content = new Uint8Array(await request.arrayBuffer());
  if (announced > 0 && content.length !== announced) return answer(400, 'The file arrived cut short: place it again.');
  const kept = await keepArt(database(), { jobId: place.data.id, id: place.data.fileId }, { name, content });
  return kept.ok ? Response.json(kept.value) : answer(422, kept.error.message);
}

/** Hands art out as it came: to be read by the page's own worker or saved, and to be run by nobody. */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  if (!(await isLetIn())) return answer(401, 'Sign in first.');
  const place = Place.safeParse(await params);
  const kept = place.success ? await artOf(database(), place.data.id, place.data.fileId) : null;
  return kept ?? answer(404, 'There is no such art.');
}
