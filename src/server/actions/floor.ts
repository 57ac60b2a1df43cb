'use server';

import { revalidatePath } from 'next/cache';
import { KeepTestCut } from '@/contracts/floor';
import { database } from '../services/database';
import { currentSession } from '../services/session';
import { keepTestCut } from '../services/test-cuts';
import { answer, type Answer } from './run';

export async function testCutKept(raw: unknown): Promise<Answer<string>> {
  return answer(KeepTestCut, raw, async (input) => {
    const { person } = await currentSession();
    const done = await keepTestCut(database(), { personId: person.id }, input);
    revalidatePath('/', 'layout');
    return done;
  });
}
