import 'server-only';
import type { Session } from '@/db/client';
import { findShopsOf, type Belongings } from '@/db/queries/belonging';
import { refusal, type Actor, type Refusal } from './actor';

const WORDS: Readonly<Record<keyof Belongings, string>> = {
  setupId: 'printer + cutter',
  calibrationId: 'check',
  cutSetId: 'cut set',
  jobId: 'job',
  rollId: 'roll',
  settingId: 'setting',
  historyEntryId: 'entry',
  dailyCheckId: 'daily check',
  eventId: 'event',
  materialId: 'material',
  markSchemeId: 'set of marks',
  personId: 'person',
};

/**
 * Why this person may not write this: it belongs to another shop than they do, or than what is named with it. Null where all belong
 * to one shop. @param actor null where nobody is named in what is written. Nothing is said of a thing that is not there: whoever asked for it finds that out.
 */
export async function strangerTo(
  session: Session,
  actor: Actor | null,
  things: Omit<Belongings, 'personId'>,
): Promise<Refusal | null> {
  const shops = await findShopsOf(session, { ...things, personId: actor?.personId ?? null });
  const [first, ...others] = [...shops];
  const stranger = others.find(([, shopId]) => shopId !== first?.[1]);
  if (!first || !stranger) return null;
  const [kind] = stranger;
  return refusal(
    kind === 'personId'
      ? `You are working in another shop than this ${WORDS[first[0]]} belongs to. Nothing was saved. Choose its shop, then try again.`
      : `This ${WORDS[kind]} belongs to another shop than this ${WORDS[first[0]]}. Nothing was saved. Choose one of this shop.`,
  );
}

/** Why this person may not write in the shop that they say they work in; null where they belong to it. */
export async function strangerIn(
  session: Session,
  { personId, shopId }: Actor & { readonly shopId: string },
): Promise<Refusal | null> {
  const own = (await findShopsOf(session, { personId })).get('personId');
  return own === shopId
    ? null
    : refusal('You belong to another shop. Nothing was saved. Choose your shop, then try again.');
}
