'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { LetGo, OpenDoor } from '@/contracts/inputs';
import { fail, ok } from '@/core/result';
import { isBeyondLoopback } from '@/env/environment';
import { database } from '../services/database';
import { closeDoor, letGo, openDoor } from '../services/door';
import { doorAddresses, isDoorThrough } from '../services/door-address';
import { answer, type Answer } from './run';

const NOT_FROM_HERE = { message: 'Only at the machine that runs Red Plumb can that be done.' };
const NO_DOOR = {
  message:
    'The passphrase is kept, but the door did not open: another program may use its port. Stop Red Plumb, then start it with another one: DOOR_PORT=3299 npm run demo',
};

/** Sets the passphrase, opens the door and waits until a phone would get through. */
export async function letPhonesIn(raw: unknown): Promise<Answer<string>> {
  return answer(OpenDoor, raw, async ({ passphrase }) => {
    if (isBeyondLoopback()) return fail(NOT_FROM_HERE);
    const opened = await openDoor(database(), passphrase);
    if (!opened.ok) return opened;
    const isThrough = doorAddresses().length > 0 && (await isDoorThrough());
    revalidatePath('/shop/phones');
    return isThrough ? opened : fail(NO_DOOR);
  });
}

export async function shutPhonesOut(raw: unknown): Promise<Answer<string>> {
  return answer(z.literal('shut'), raw, async (input) => {
    if (isBeyondLoopback()) return fail(NOT_FROM_HERE);
    await closeDoor(database());
    revalidatePath('/shop/phones');
    return ok(input);
  });
}

export async function letPhoneGo(raw: unknown): Promise<Answer<string>> {
  return answer(LetGo, raw, async ({ id }) => {
    if (isBeyondLoopback()) return fail(NOT_FROM_HERE);
    await letGo(database(), id);
    revalidatePath('/shop/phones');
    return ok(id);
  });
}
