import { ListQuery } from '@/contracts/lists';
import { database } from '@/server/services/database';
import { fileResponse, plain } from '@/server/services/file-response';
import { listFile } from '@/server/services/list-files';
import { currentSession } from '@/server/services/session';

interface Context {
  readonly params: Promise<{ what: string }>;
}

/** Any list of the shop, as CSV or JSON. */
export async function GET(request: Request, { params }: Context): Promise<Response> {
  const { shop } = await currentSession();
  const { what } = await params;
  const asked = ListQuery.safeParse({ what, format: new URL(request.url).searchParams.get('format') });
  return asked.success ? fileResponse(await listFile(database(), shop.id, asked.data)) : plain(404, 'No such list.');
}
