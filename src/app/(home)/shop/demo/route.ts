import type { DemoProgress } from '@/contracts/progress';
import { addDemoShop } from '@/server/services/demo-shop';
import { isLetIn } from '@/server/services/door-guard';
import { plain } from '@/server/services/file-response';
import { progressResponse } from '@/server/services/progress-response';

/** Adds the demo shop and tells how far it is; whoever leaves meanwhile ends it, and nothing of it is kept. */
export async function POST(request: Request): Promise<Response> {
  if (!(await isLetIn())) return plain(401, 'Sign in first.');
  return progressResponse<DemoProgress>(request, async ({ onProgress, signal }) => {
    await addDemoShop((done, of) => {
      onProgress('Making the demo shop', done, of);
    }, signal);
    return { kind: 'added' };
  });
}
