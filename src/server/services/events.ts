import 'server-only';
import { EVENT_KINDS } from '@/core/trust/event-kinds';
import { fail, ok, type Result } from '@/core/result';
import type { Database } from '@/db/client';
import { findSetup } from '@/db/queries/shop';
import { event } from '@/db/schema/correction';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerTo } from './own-shop';

/** Writes down that something happened; the thing it happened to decides which setups it touches. */
export async function logEvent(
  database: Database,
  actor: Actor,
  input: { readonly id: string; readonly setupId: string; readonly kind: string; readonly note: string },
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId });
  if (stranger) return fail(stranger);
  const found = await findSetup(database, input.setupId);
  const kind = EVENT_KINDS.find((e) => e.kind === input.kind);
  if (!found || !kind) return fail(refusal('This printer + cutter, or this kind of event, is not known here.'));
  const target = {
    setup: { setupId: found.setup.id },
    printer: { printerId: found.printer.id },
    cutter: { cutterId: found.cutter.id },
    program: found.program ? { programId: found.program.id } : { setupId: found.setup.id },
  }[kind.target];
  await database
    .insert(event)
    .values({ id: input.id, ...target, kind: input.kind, note: input.note, at: now(), by: actor.personId })
    .onConflictDoNothing();
  return ok(input.id);
}

/** Takes an event back by another that names it: nothing is erased. */
export async function undoEvent(
  database: Database,
  actor: Actor,
  input: { readonly id: string; readonly eventId: string; readonly setupId: string },
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId, eventId: input.eventId });
  if (stranger) return fail(stranger);
  await database
    .insert(event)
    .values({
      id: input.id,
      setupId: input.setupId,
      kind: 'undo',
      note: '',
      undoesId: input.eventId,
      at: now(),
      by: actor.personId,
    })
    .onConflictDoNothing();
  return ok(input.id);
}
