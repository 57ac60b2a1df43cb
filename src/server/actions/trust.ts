'use server';

import { revalidatePath } from 'next/cache';
import { KeepDailyCheck, KeepDiscCheck, KeepPolicy, TakeBackDailyCheck } from '@/contracts/trust';
import { keepDailyCheck, keepDiscCheck, keepPolicy, takeBackDailyCheck } from '../services/daily-check';
import { database } from '../services/database';
import { currentSession } from '../services/session';
import { answer, type Answer } from './run';

const actor = async () => ({ personId: (await currentSession()).person.id });

export async function dailyCheckKept(raw: unknown): Promise<Answer<string>> {
  return answer(KeepDailyCheck, raw, async (input) => {
    const done = await keepDailyCheck(database(), await actor(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function discCheckKept(raw: unknown): Promise<Answer<string>> {
  return answer(KeepDiscCheck, raw, async (input) => {
    const done = await keepDiscCheck(database(), await actor(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function dailyCheckTakenBack(raw: unknown): Promise<Answer<string>> {
  return answer(TakeBackDailyCheck, raw, async ({ id }) => {
    const done = await takeBackDailyCheck(database(), await actor(), id);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function policyKept(raw: unknown): Promise<Answer<number>> {
  return answer(KeepPolicy, raw, async (input) => {
    const done = await keepPolicy(database(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}
