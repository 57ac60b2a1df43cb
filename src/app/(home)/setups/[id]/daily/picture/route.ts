import { z } from 'zod';
import { DAILY_PICTURES, dailyPicture } from '@/server/services/daily-stand-in';
import { database } from '@/server/services/database';
import { isLetIn } from '@/server/services/door-guard';
import { fileResponse, plain } from '@/server/services/file-response';

const Asked = z.object({ id: z.uuid(), of: z.enum(DAILY_PICTURES) });

/** What the stand-in camera and scanner make of a simulated setup's work. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const asked = Asked.safeParse({ ...Object.fromEntries(new URL(request.url).searchParams), ...(await params) });
  if (!asked.success) return plain(400, 'There is no such picture: ask for "of=piece" or "of=discs".');
  const made = await dailyPicture(database(), asked.data.id, asked.data.of);
  return made.ok ? fileResponse(made.value) : plain(409, made.error.message);
}
