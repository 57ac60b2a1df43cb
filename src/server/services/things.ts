import 'server-only';
import { and, eq, or, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import { THING_FIELDS, type SaveThingInput, type ThingKind, type ThingValues } from '@/contracts/shop';
import { decideRoute } from '@/core/shop/decide-route';
import { fail, ok, type Result } from '@/core/result';
import type { Database, Session } from '@/db/client';
import { findSetups } from '@/db/queries/shop';
import { cutter, markScheme, printer, printMode, program, setup } from '@/db/schema/machines';
import { machineSetting } from '@/db/schema/settings';
import { material, person } from '@/db/schema/shop';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerIn } from './own-shop';
import { logTouched, touchedBy } from './thing-touch';

interface ShopActor extends Actor {
  readonly shopId: string;
}

const isUniqueBreach = (error: unknown): boolean =>
  error instanceof Error && (error.cause as { code?: string } | undefined)?.code === '23505';

const problemWords = (field: string, message: string): string =>
  `${field.replace(/([A-Z])/g, ' $1').toLowerCase()}: expected ${message}.`;

/** The shop's own row of a table, so that nothing of another shop is ever written. */
async function isOwn(session: Session, table: PgTable & { id: never; shopId: never }, shopId: string, id: string) {
  const rows = await session
    .select()
    .from(table)
    .where(and(eq(table.id, id as never), eq(table.shopId, shopId as never)));
  return rows.length > 0;
}

const OWNED = { person, printer, program, cutter, markScheme, material } as const;

/** Writes a thing that stands in the shop itself: new, or changed where it is the shop's own. */
async function writeOwned(
  session: Session,
  shopId: string,
  kind: keyof typeof OWNED,
  { id, values }: { readonly id: string; readonly values: object },
): Promise<'made' | 'changed' | 'same' | 'not-yours'> {
  const table = OWNED[kind] as unknown as PgTable & { id: never; shopId: never };
  if (await isOwn(session, table, shopId, id)) {
    const [row] = await session
      .select()
      .from(table)
      .where(eq(table.id, id as never))
      .for('update');
    const isSame = Object.entries(values).every(([field, value]) => row?.[field] === value);
    if (isSame) return 'same';
    const raised = kind === 'material' ? { version: sql`version + 1` } : {};
    await session
      .update(table)
      .set({ ...values, ...raised })
      .where(and(eq(table.id, id as never), eq(table.shopId, shopId as never)));
    return 'changed';
  }
  const made = await session
    .insert(table as PgTable)
    .values({ ...values, id, shopId })
    .onConflictDoNothing({ target: table.id })
    .returning();
  return made.length === 1 ? 'made' : 'not-yours';
}

async function writeMode(
  session: Session,
  shopId: string,
  { id, ownerId, values }: { id: string; ownerId: string | null; values: ThingValues<'printMode'> },
): Promise<'made' | 'changed' | 'not-yours'> {
  const [known] = await session
    .select({ id: printMode.id })
    .from(printMode)
    .innerJoin(printer, eq(printMode.printerId, printer.id))
    .where(and(eq(printMode.id, id), eq(printer.shopId, shopId)));
  if (known) {
    await session.update(printMode).set(values).where(eq(printMode.id, id));
    return 'changed';
  }
  const [owner] = await session
    .select({ id: printer.id })
    .from(printer)
    .where(and(eq(printer.id, ownerId ?? id), eq(printer.shopId, shopId)));
  if (!owner) return 'not-yours';
  await session.insert(printMode).values({ ...values, id, printerId: owner.id });
  return 'made';
}

async function writeSetting(
  session: Session,
  shopId: string,
  { id, ownerId, values }: { id: string; ownerId: string | null; values: ThingValues<'setting'> },
): Promise<'made' | 'changed' | 'not-yours'> {
  const [known] = await session
    .select({ id: machineSetting.id })
    .from(machineSetting)
    .leftJoin(cutter, eq(machineSetting.cutterId, cutter.id))
    .leftJoin(program, eq(machineSetting.programId, program.id))
    .where(and(eq(machineSetting.id, id), or(eq(cutter.shopId, shopId), eq(program.shopId, shopId))));
  if (known) {
    await session.update(machineSetting).set(values).where(eq(machineSetting.id, id));
    return 'changed';
  }
  const owner = ownerId ?? id;
  const [own] = await session
    .select({ id: cutter.id })
    .from(cutter)
    .where(and(eq(cutter.id, owner), eq(cutter.shopId, shopId)));
  const [ownProgram] = await session
    .select({ id: program.id })
    .from(program)
    .where(and(eq(program.id, owner), eq(program.shopId, shopId)));
  if (!own && !ownProgram) return 'not-yours';
  const position = (await session.select().from(machineSetting)).filter(
    (s) => s.cutterId === owner || s.programId === owner,
  ).length;
  await session.insert(machineSetting).values({
    ...values,
    id,
    cutterId: own?.id ?? null,
    programId: own ? null : (ownProgram?.id ?? null),
    position,
    gain: 1,
  });
  return 'made';
}

/** A program described anew may take another route: its setups follow. */
async function followRoute(session: Session, shopId: string, programId: string): Promise<void> {
  for (const row of await findSetups(session, shopId)) {
    if (row.program?.id !== programId) continue;
    const { route } = decideRoute(row.program, row.setup.family);
    if (route !== row.setup.route) await session.update(setup).set({ route }).where(eq(setup.id, row.setup.id));
  }
}

/**
 * Writes a thing of the shop: new by a new id, changed by a known one. A change of what setups share marks every one of
 * them: nothing stays in register unnoticed.
 */
export async function saveThing(
  database: Database,
  actor: ShopActor,
  input: SaveThingInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerIn(database, actor);
  if (stranger) return fail(stranger);
  const parsed = THING_FIELDS[input.kind].safeParse(input.values);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return fail(refusal(problemWords(String(issue?.path[0] ?? 'this'), issue?.message ?? 'something else')));
  }
  const { id, ownerId, kind } = input;
  const { shopId } = actor;
  try {
    const done = await database.transaction(async (session) => {
      const written = await write(session, shopId, { kind, id, ownerId, values: parsed.data });
      if (written !== 'changed') return written;
      if (kind === 'program') await followRoute(session, shopId, id);
      const name = 'name' in parsed.data ? parsed.data.name : parsed.data.displayName;
      await logTouched(session, actor, await touchedBy(session, shopId, kind, id), name);
      return written;
    });
    return done === 'not-yours' ? fail(refusal('This is not in your shop any more.')) : ok(id);
  } catch (error) {
    if (isUniqueBreach(error)) return fail(refusal('name: there is one of that name already. Choose another.'));
    throw error;
  }
}

interface Write {
  readonly kind: ThingKind;
  readonly id: string;
  readonly ownerId: string | null;
  readonly values: ThingValues;
}

function write(session: Session, shopId: string, { kind, id, ownerId, values }: Write) {
  if (kind === 'printMode')
    return writeMode(session, shopId, { id, ownerId, values: values as ThingValues<'printMode'> });
  if (kind === 'setting')
    return writeSetting(session, shopId, { id, ownerId, values: values as ThingValues<'setting'> });
  return writeOwned(session, shopId, kind, { id, values });
}
