'use server';

import { KeepDailyCheck, KeepDiscCheck, KeepPolicy, TakeBackDailyCheck } from '@/contracts/trust';
import { keepDailyCheck, keepDiscCheck, keepPolicy, takeBackDailyCheck } from '../services/daily-check';
import { database } from '../services/database';
import { currentSession } from '../services/session';
import { answer, type Answer } from './run';

// Screens that keep something here ask for themselves anew: the answer does not wait for it.
const actor = async () => ({ personId: (await currentSession()).person.id });

export async function dailyCheckKept(raw: unknown): Promise<Answer<string>> {
  return answer(KeepDailyCheck, raw, async (input) => keepDailyCheck(database(), await actor(), input));
}

export async function discCheckKept(raw: unknown): Promise<Answer<string>> {
  return answer(KeepDiscCheck, raw, async (input) => keepDiscCheck(database(), await actor(), input));
}

export async function dailyCheckTakenBack(raw: unknown): Promise<Answer<string>> {
  return answer(TakeBackDailyCheck, raw, async ({ id }) => takeBackDailyCheck(database(), await actor(), id));
}

export async function policyKept(raw: unknown): Promise<Answer<number>> {
  return answer(KeepPolicy, raw, async (input) => keepPolicy(database(), input));
}
