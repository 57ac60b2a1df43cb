import 'server-only';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Session } from '../client';
import { cutter, markScheme, printer, printMode, program, setup, simulatedSetup } from '../schema/machines';
import { material, person, shop } from '../schema/shop';

export type SetupRow = Awaited<ReturnType<typeof findSetups>>[number];

const programScheme = alias(markScheme, 'program_scheme');
const cutterScheme = alias(markScheme, 'cutter_scheme');

function setupQuery(session: Session) {
  return session
    .select({
      setup,
      printer,
      printMode,
      program,
      cutter,
      /** Marks that the program prints, and those that the cutter is told to read. */
      programScheme,
      cutterScheme,
      isSimulated: sql<boolean>`${simulatedSetup.setupId} is not null`,
    })
    .from(setup)
    .innerJoin(printer, eq(setup.printerId, printer.id))
    .innerJoin(printMode, eq(setup.printModeId, printMode.id))
    .leftJoin(program, eq(setup.programId, program.id))
    .innerJoin(cutter, eq(setup.cutterId, cutter.id))
    .leftJoin(programScheme, eq(program.markSchemeId, programScheme.id))
    .leftJoin(cutterScheme, eq(cutter.markSchemeId, cutterScheme.id))
    .leftJoin(simulatedSetup, eq(simulatedSetup.setupId, setup.id))
    .orderBy(asc(setup.name));
}

/** A shop's setups with everything they stand on, by name. */
export const findSetups = (session: Session, shopId: string) => setupQuery(session).where(eq(setup.shopId, shopId));

export async function findSetup(session: Session, id: string): Promise<SetupRow | undefined> {
  const [row] = await setupQuery(session).where(eq(setup.id, id));
  return row;
}

export function findPersons(session: Session, shopId: string) {
  return session
    .select()
    .from(person)
    .where(and(eq(person.shopId, shopId), isNull(person.archivedAt)))
    .orderBy(asc(person.name));
}

export function findMaterials(session: Session, shopId: string) {
  return session.select().from(material).where(eq(material.shopId, shopId)).orderBy(asc(material.name));
}

/** All shops, the demo last. */
export const findShops = (session: Session) => session.select().from(shop).orderBy(asc(shop.isDemo), asc(shop.madeAt));

export const findPrinters = (session: Session, shopId: string) =>
  session.select().from(printer).where(eq(printer.shopId, shopId)).orderBy(asc(printer.name));

export const findPrintModes = (session: Session, shopId: string) =>
  session
    .select({ mode: printMode, printer })
    .from(printMode)
    .innerJoin(printer, eq(printMode.printerId, printer.id))
    .where(eq(printer.shopId, shopId))
    .orderBy(asc(printer.name), asc(printMode.name));

export const findCutters = (session: Session, shopId: string) =>
  session.select().from(cutter).where(eq(cutter.shopId, shopId)).orderBy(asc(cutter.name));

export const findPrograms = (session: Session, shopId: string) =>
  session.select().from(program).where(eq(program.shopId, shopId)).orderBy(asc(program.name));

export const findMarkSchemes = (session: Session, shopId: string) =>
  session.select().from(markScheme).where(eq(markScheme.shopId, shopId)).orderBy(asc(markScheme.name));

export async function findTruth(session: Session, setupId: string) {
  const [row] = await session.select().from(simulatedSetup).where(eq(simulatedSetup.setupId, setupId));
  return row;
}
