import { z } from 'zod';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { valueCard } from '@/server/services/value-card';
import { stampWords } from '@/ui/components/dates';

/** The value card of a setup, as an attachment. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const text = { headers: { 'content-type': 'text/plain; charset=utf-8' } };
  if (!z.uuid().safeParse(id).success) return new Response('There is no such card.', { status: 400, ...text });
  const { person } = await currentSession();
  const card = await valueCard(database(), id, (at) => stampWords(at, person.timeZone));
  if (!card) return new Response('This printer + cutter is not there any more.', { status: 404, ...text });
  return new Response(new Uint8Array(card.body), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="${card.name}"`,
      'content-security-policy': "sandbox; default-src 'none'",
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
}
