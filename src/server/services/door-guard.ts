import 'server-only';
import { cookies } from 'next/headers';
import { isBeyondLoopback } from '@/env/environment';
import { log } from '../log';
import { database } from './database';
import { mayPass } from './door';
import { DOOR_COOKIE } from './door-cookie';

export const SIGN_IN_PATH = '/sign-in';

interface Asked {
  readonly nextUrl: { readonly pathname: string };
  readonly cookies: { get: (name: string) => { readonly value: string } | undefined };
}

/** Whether a request may be answered: on loopback always, beyond it for those signed in, and for the sign-in page. */
export async function mayComeIn(request: Asked): Promise<'yes' | 'no' | 'cannot tell'> {
  if (!isBeyondLoopback() || request.nextUrl.pathname === SIGN_IN_PATH) return 'yes';
  try {
    return (await mayPass(database(), request.cookies.get(DOOR_COOKIE)?.value)) ? 'yes' : 'no';
  } catch (error) {
    log.error({ err: error }, 'cannot check who is signed in');
    return 'cannot tell';
  }
}

/** The same question asked again inside pages, files and actions, so that one door alone does not carry everything. */
export async function isLetIn(): Promise<boolean> {
  if (!isBeyondLoopback()) return true;
  return mayPass(database(), (await cookies()).get(DOOR_COOKIE)?.value);
}
