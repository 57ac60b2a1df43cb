'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { KeepSectionWork, OnlyRoll, RuledLength, SaveStations, StartRoll } from '@/contracts/rolls';
import { database } from '../services/database';
import { closeRoll, keepRuled, keepSectionWork, saveStations, startRoll, type SavedStation } from '../services/rolls';
import { readByStandIn } from '../services/roll-stand-in';
import { currentSession } from '../services/session';
import { answer, type Answer } from './run';

const actor = async () => ({ personId: (await currentSession()).person.id });

const refresh = (rollId: string): void => {
  revalidatePath(`/rolls/${rollId}`);
};

export async function beginRoll(raw: unknown): Promise<Answer<string>> {
  return answer(StartRoll, raw, async (input) => startRoll(database(), await actor(), input));
}

export async function keepStations(raw: unknown): Promise<Answer<readonly SavedStation[]>> {
  return answer(SaveStations, raw, async ({ readings }) => saveStations(database(), await actor(), readings));
}

export async function standInReads(raw: unknown): Promise<Answer<number>> {
  return answer(OnlyRoll, raw, async ({ rollId }) => {
    const done = await readByStandIn(database(), await actor(), rollId);
    refresh(rollId);
    return done;
  });
}

export async function rollClosed(raw: unknown): Promise<Answer<string>> {
  return answer(OnlyRoll.extend({ isClosed: z.boolean() }), raw, async ({ rollId, isClosed }) => {
    const done = await closeRoll(database(), rollId, isClosed);
    refresh(rollId);
    return done;
  });
}

export async function lengthRuled(raw: unknown): Promise<Answer<string>> {
  return answer(RuledLength, raw, async (input) => {
    const done = await keepRuled(database(), input);
    refresh(input.rollId);
    return done;
  });
}

export async function sectionsAsked(raw: unknown): Promise<Answer<string>> {
  return answer(KeepSectionWork, raw, async ({ rollId, work }) => {
    const done = await keepSectionWork(database(), rollId, work);
    refresh(rollId);
    return done;
  });
}
