import { cookies } from 'next/headers';
import { database } from '@/server/services/database';
import { signOut } from '@/server/services/door';
import { DOOR_COOKIE } from '@/server/services/door-cookie';

/** Ends this device's stay, here and in the records. */
export async function POST(): Promise<Response> {
  const jar = await cookies();
  const cookie = jar.get(DOOR_COOKIE)?.value;
  if (cookie) await signOut(database(), cookie);
  jar.delete(DOOR_COOKIE);
  return new Response(null, { status: 303, headers: { location: '/sign-in', 'clear-site-data': '"cache"' } });
}
