import { HistoryQuery } from '@/contracts/history';
import { database } from '@/server/services/database';
import { fileResponse } from '@/server/services/file-response';
import { recordFile } from '@/server/services/record-files';
import { currentSession } from '@/server/services/session';

/** The history as it is asked for, as CSV or JSON. */
export async function GET(request: Request): Promise<Response> {
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  const { shop } = await currentSession();
  const format = asked.format === 'json' ? 'json' : 'csv';
  return fileResponse(await recordFile(database(), shop.id, HistoryQuery.parse(asked), format));
}
