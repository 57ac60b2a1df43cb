'use server';

import { revalidatePath } from 'next/cache';
import { ImportTable, TakeBackImport, type ImportLook } from '@/contracts/import';
import { ok } from '@/core/result';
import { database } from '../services/database';
import { importTable, takeBackImport } from '../services/import';
import { currentSession } from '../services/session';
import { answer, type Answer } from './run';

/** Looks at a table from another tool, or keeps it whole. */
export async function tableTaken(raw: unknown): Promise<Answer<ImportLook>> {
  return answer(ImportTable, raw, async (input) => {
    const { shop, person } = await currentSession();
    const who = { personId: person.id, shopId: shop.id, system: person.unitSystem };
    const look = await importTable(database(), who, input);
    if (look.kept.length > 0) revalidatePath('/', 'layout');
    return ok(look);
  });
}

export async function importTakenBack(raw: unknown): Promise<Answer<number>> {
  return answer(TakeBackImport, raw, async ({ ids }) => {
    const { person } = await currentSession();
    const count = await takeBackImport(database(), { personId: person.id }, ids);
    revalidatePath('/', 'layout');
    return ok(count);
  });
}
