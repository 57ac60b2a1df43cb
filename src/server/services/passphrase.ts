import 'server-only';
import { randomBytes, scrypt as scryptCallback, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { makePassphrase, PASSPHRASE_BYTES } from '@/core/shop/passphrase-words';
import { fail, ok, type Result } from '@/core/result';

/** Cost of one guess: N = 2^17, r = 8, p = 1 (OWASP Password Storage Cheat Sheet, scrypt; 128 MiB and about 0.4 s). */
const COST: ScryptOptions = { N: 2 ** 17, r: 8, p: 1, maxmem: 160 * 1024 * 1024 };
const HASH_BYTES = 32;
const FEWEST_CHARACTERS = 12;
export const MOST_CHARACTERS = 128;
/** Of 0 to 4: at least 10^10 guesses by the estimator. */
const LEAST_SCORE = 4;

/** Anyone who stands at this door would try these: they count for nothing. */
const OWN_WORDS = /red|plumb|shop|phones?|printer|cutter/gi;

const estimator = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });

export const suggestPassphrase = (): string => makePassphrase(randomBytes(PASSPHRASE_BYTES));

/** Runs of blanks count as one, and none at the ends, so that a phone's keyboard cannot spoil it. */
export const tidy = (passphrase: string): string => passphrase.normalize('NFC').trim().replace(/\s+/g, ' ');

/** Whether a passphrase is good enough, in words when it is not. Any characters may be used. */
export function checkPassphrase(passphrase: string): Result<string, { readonly message: string }> {
  const tidied = tidy(passphrase);
  if (tidied.length < FEWEST_CHARACTERS)
    return fail({ message: `The passphrase has ${tidied.length} characters. Use at least ${FEWEST_CHARACTERS}.` });
  if (tidied.length > MOST_CHARACTERS)
    return fail({ message: `The passphrase has ${tidied.length} characters. Use at most ${MOST_CHARACTERS}.` });
  if (estimator.check(tidied.replace(OWN_WORDS, '')).score < LEAST_SCORE)
    return fail({
      message: 'That passphrase is among the first a stranger would try. Use four or more unrelated words.',
    });
  return ok(tidied);
}

function scrypt(passphrase: string, salt: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scryptCallback(tidy(passphrase), salt, HASH_BYTES, COST, (error, key) => {
      if (error) reject(error);
      else resolve(key);
    });
  });
}

/** `salt:key`, both base64url. */
export async function hashPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  return `${salt.toString('base64url')}:${(await scrypt(passphrase, salt)).toString('base64url')}`;
}

export async function isPassphrase(passphrase: string, hash: string): Promise<boolean> {
  if (passphrase.length > 4 * MOST_CHARACTERS) return false;
  const [salt = '', key = ''] = hash.split(':');
  const wanted = Buffer.from(key, 'base64url');
  const got = await scrypt(passphrase, Buffer.from(salt, 'base64url'));
  return wanted.length === got.length && timingSafeEqual(wanted, got);
}
