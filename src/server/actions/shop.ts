'use server';

import { cookies } from 'next/headers';
import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { LogEvent, PutBack, SetPerson, TellShownValue, UndoEvent } from '@/contracts/inputs';
import { ok } from '@/core/result';
import { database } from '../services/database';
import { logEvent, undoEvent } from '../services/events';
import { putBack } from '../services/put-back';
import { tellShownValue } from '../services/shown-value';
import { currentSession } from '../services/session';
import { answer, type Answer } from './run';

const YEAR_S = 31_536_000;

export async function choosePerson(raw: unknown): Promise<Answer<string>> {
  return answer(SetPerson, raw, async ({ personId }) => {
    (await cookies()).set('person', personId, { httpOnly: true, sameSite: 'strict', maxAge: YEAR_S, path: '/' });
    revalidatePath('/', 'layout');
    return ok(personId);
  });
}

export async function chooseTheme(raw: unknown): Promise<Answer<string>> {
  return answer(z.enum(['light', 'dark']), raw, async (theme) => {
    (await cookies()).set('theme', theme, { httpOnly: true, sameSite: 'strict', maxAge: YEAR_S, path: '/' });
    revalidatePath('/', 'layout');
    return ok(theme);
  });
}

export async function somethingHappened(raw: unknown): Promise<Answer<string>> {
  return answer(LogEvent, raw, async (input) => {
    const { person } = await currentSession();
    const done = await logEvent(database(), { personId: person.id }, input);
    revalidatePath('/');
    return done;
  });
}

export async function takeBack(raw: unknown): Promise<Answer<string>> {
  return answer(UndoEvent.extend({ setupId: z.uuid() }), raw, async (input) => {
    const { person } = await currentSession();
    await undoEvent(database(), { personId: person.id }, input);
    revalidatePath('/');
    return ok(input.id);
  });
}

export async function putBackEntry(raw: unknown): Promise<Answer<string>> {
  return answer(PutBack, raw, async (input) => {
    const { person } = await currentSession();
    const done = await putBack(database(), { personId: person.id }, input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function valueShown(raw: unknown): Promise<Answer<string>> {
  return answer(TellShownValue, raw, async (input) => {
    const { person } = await currentSession();
    const done = await tellShownValue(database(), { personId: person.id }, input);
    revalidatePath('/', 'layout');
    return done;
  });
}
