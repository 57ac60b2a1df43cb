import { z } from 'zod';
import { database } from '@/server/services/database';
import { fileResponse, plain } from '@/server/services/file-response';
import { currentSession } from '@/server/services/session';
import { valueCard } from '@/server/services/value-card';
import { stampWords } from '@/ui/components/dates';

/** The value card of a setup, as an attachment. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) return plain(400, 'There is no such card.');
  const { person } = await currentSession();
  const card = await valueCard(database(), id, (at) => stampWords(at, person.timeZone));
  return card
    ? fileResponse({ ...card, mediaType: 'application/pdf' })
    : plain(404, 'This printer + cutter is not there any more.');
}
