import 'server-only';
import { cookies } from 'next/headers';
import { sendsCookiesSecurely } from '@/env/environment';

const YEAR_S = 31_536_000;

/** Keeps a choice of this browser (shop, person, theme) for a year: scripts cannot read it, other sites cannot send it. */
export async function keepChoice(name: 'shop' | 'person' | 'theme', value: string): Promise<void> {
  const options = { httpOnly: true, sameSite: 'strict', maxAge: YEAR_S, path: '/' } as const;
  (await cookies()).set(name, value, { ...options, secure: sendsCookiesSecurely() });
}
