import { z } from 'zod';
import { certificateOf } from '@/server/services/certificate';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { fileResponse, plain } from '@/server/services/file-response';
import { stampWords } from '@/ui/components/dates';

/** The certificate of one confirmation, as an attachment. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) return plain(400, 'There is no such entry.');
  const { person } = await currentSession();
  const stamp = (at: Date): string => stampWords(at, person.timeZone);
  const file = await certificateOf(database(), id, { system: person.unitSystem, stamp });
  return file
    ? fileResponse({ ...file, mediaType: 'application/pdf' })
    : plain(404, 'This entry was not confirmed: there is nothing to certify.');
}
