import { LookAtArchive } from '@/contracts/archive';
import { lookAtBefore, lookAtUpload } from '@/server/services/archive';
import { progressResponse } from '@/server/services/progress-response';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';

/** Looks at an archive that was sent, or at what the newest restore put aside, and tells what would change. */
export async function POST(request: Request): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  const asked = LookAtArchive.safeParse(await request.json().catch(() => null));
  if (!asked.success) return plain(400, 'Say which archive.');
  const { upload } = asked.data;
  return progressResponse(request, async (told) => ({
    kind: 'look',
    look: upload === null ? await lookAtBefore(told) : await lookAtUpload(upload, told),
  }));
}
