'use server';

import { cookies } from 'next/headers';
import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { ChooseShop, KeepOwnTest, NewSetup, NewShop, SaveShop, SaveThing, SetLimit } from '@/contracts/shop';
import { LogEvent, PutBack, SetPerson, TellShownValue, UndoEvent } from '@/contracts/inputs';
import { fail, ok } from '@/core/result';
import { keepChoice } from '../services/cookies';
import { database } from '../services/database';
import { removeDemoShop } from '../services/demo-shop';
import { logEvent, undoEvent } from '../services/events';
import { setLimit } from '../services/limit';
import { keepOwnTest } from '../services/measure';
import { putBack } from '../services/put-back';
import { tellShownValue } from '../services/shown-value';
import { currentSession, everyShop } from '../services/session';
import { makeSetup } from '../services/setup-make';
import { saveShop, startOwnShop } from '../services/shop-make';
import { saveThing } from '../services/things';
import { answer, type Answer } from './run';

export async function choosePerson(raw: unknown): Promise<Answer<string>> {
  return answer(SetPerson, raw, async ({ personId }) => {
    await keepChoice('person', personId);
    revalidatePath('/', 'layout');
    return ok(personId);
  });
}

export async function chooseTheme(raw: unknown): Promise<Answer<string>> {
  return answer(z.enum(['light', 'dark']), raw, async (theme) => {
    await keepChoice('theme', theme);
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
    const done = await undoEvent(database(), { personId: person.id }, input);
    revalidatePath('/');
    return done;
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

export async function limitSet(raw: unknown): Promise<Answer<string>> {
  return answer(SetLimit, raw, async (input) => {
    const { person } = await currentSession();
    const done = await setLimit(database(), { personId: person.id }, input);
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

async function enterShop(shopId: string): Promise<void> {
  await keepChoice('shop', shopId);
  (await cookies()).delete('person');
  revalidatePath('/', 'layout');
}

export async function chooseShop(raw: unknown): Promise<Answer<string>> {
  return answer(ChooseShop, raw, async ({ shopId }) => {
    await enterShop(shopId);
    return ok(shopId);
  });
}

export async function startShop(raw: unknown): Promise<Answer<string>> {
  return answer(NewShop, raw, async (input) => {
    const shopId = await startOwnShop(database(), input);
    await enterShop(shopId);
    return ok(shopId);
  });
}

export async function shopSaved(raw: unknown): Promise<Answer<string>> {
  return answer(SaveShop, raw, async (input) => {
    if (!(await everyShop()).some((s) => s.id === input.id))
      return fail({ message: 'That shop is not here any more.' });
    await saveShop(database(), input);
    revalidatePath('/', 'layout');
    return ok(input.id);
  });
}

export async function demoRemoved(raw: unknown): Promise<Answer<string>> {
  return answer(z.literal('demo'), raw, async (input) => {
    await removeDemoShop(database());
    revalidatePath('/', 'layout');
    return ok(input);
  });
}

export async function newSetup(raw: unknown): Promise<Answer<string>> {
  return answer(NewSetup, raw, async (input) => {
    const { person, shop } = await currentSession();
    const done = await makeSetup(database(), { personId: person.id, shopId: shop.id }, input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function saveShopThing(raw: unknown): Promise<Answer<string>> {
  return answer(SaveThing, raw, async (input) => {
    const { person, shop } = await currentSession();
    const done = await saveThing(database(), { personId: person.id, shopId: shop.id }, input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function ownTestKept(raw: unknown): Promise<Answer<string>> {
  return answer(KeepOwnTest, raw, async (input) => {
    const { shop } = await currentSession();
    const done = await keepOwnTest(database(), shop.id, input);
    revalidatePath(`/setups/${input.setupId}`, 'layout');
    return done;
  });
}
