'use server';

import { revalidatePath } from 'next/cache';
import { KeepNote } from '@/contracts/history';
import { database } from '../services/database';
import { currentSession } from '../services/session';
import { keepNote } from '../services/shop-record';
import { answer, type Answer } from './run';

export async function noteKept(raw: unknown): Promise<Answer<string>> {
  return answer(KeepNote, raw, async (input) => {
    const { person } = await currentSession();
    const done = await keepNote(database(), { personId: person.id }, input);
    revalidatePath('/history', 'layout');
    return done;
  });
}
