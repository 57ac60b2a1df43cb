import { RestoreArchive } from '@/contracts/archive';
import { restore } from '@/server/services/archive';
import { progressResponse } from '@/server/services/progress-response';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';

/** Puts the archive that was looked at in its place. */
export async function POST(request: Request): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const asked = RestoreArchive.safeParse(await request.json().catch(() => null));
  if (!asked.success) return plain(400, 'Say which archive.');
  return progressResponse(request, async (told) => ({
    kind: 'restored',
    shopId: await restore(asked.data.sha256, told),
  }));
}
