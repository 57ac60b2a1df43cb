import { archiveResponse } from '@/server/services/archive';
import { currentSession } from '@/server/services/session';

/** The whole shop as one file. */
export async function GET(): Promise<Response> {
  const { shop } = await currentSession();
  return archiveResponse(shop);
}
