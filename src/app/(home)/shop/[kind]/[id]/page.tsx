import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import type { ThingKind } from '@/contracts/shop';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { isThingKind, readThing, type Thing } from '@/server/services/thing-read';
import { settingValueWords } from '@/server/services/words';
import { HomeShell } from '@/ui/components/HomeShell';
import { ThingForm } from '@/ui/shop/ThingForm';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

const NEW_TITLES: Readonly<Partial<Record<ThingKind, string>>> = {
  person: 'Somebody new',
  material: 'A new material',
  markScheme: 'Other marks',
  setting: 'Another setting, as its display has it',
};

interface Props {
  readonly params: Promise<{ kind: string; id: string }>;
  readonly searchParams: Promise<Record<string, string | string[] | undefined>>;
}

function SettingsOf({ thing }: { readonly thing: Thing }) {
  if (thing.kind !== 'cutter' && thing.kind !== 'program') return null;
  return (
    <section className="mt-3">
      <h2>What can be set on it</h2>
      <ul className="things">
        {thing.settings.map((s) => (
          <li key={s.id}>
            <Link href={`/shop/setting/${s.id}`} prefetch={false}>
              {s.displayName}
            </Link>
            <span className="quiet d-block">
              {`${s.actsOn.replaceAll('_', ' ')}; ${s.kind === 'wizard' ? 'value hidden' : `shows ${settingValueWords(s, s.value)}`}; ${s.sense === null ? 'direction not known' : 'direction known'}`}
            </span>
          </li>
        ))}
        {thing.settings.length === 0 && (
          <li className="quiet">Nothing: the cut is moved in the file, or a border hides it.</li>
        )}
        <li>
          <Link className="btn btn-quiet" href={`/shop/setting/new?owner=${thing.id}`} prefetch={false}>
            Describe another setting
          </Link>
        </li>
      </ul>
    </section>
  );
}

export default async function ThingPage({ params, searchParams }: Props) {
  const [{ kind, id }, query, session] = await Promise.all([params, searchParams, currentSession()]);
  if (!isThingKind(kind) || !(id === 'new' || z.uuid().safeParse(id).success)) notFound();
  const ownerId = z.uuid().safeParse(query.owner);
  const thing = await readThing(database(), session.shop.id, {
    kind,
    id,
    ownerId: ownerId.success ? ownerId.data : null,
  });
  if (!thing) notFound();
  return (
    <HomeShell here="Shop" people={session}>
      <PageHeading>{thing.title || (NEW_TITLES[kind] ?? 'Something new')}</PageHeading>
      {id !== 'new' && kind !== 'person' && (
        <p className="quiet">A change here marks every printer + cutter that shares it: check first.</p>
      )}
      <ThingForm
        view={{
          kind: thing.kind,
          id: thing.id,
          ownerId: thing.ownerId,
          values: thing.values,
          marks: thing.marks,
          system: session.person.unitSystem,
          feed: thing.feed,
        }}
      >
        <SettingsOf thing={thing} />
      </ThingForm>
    </HomeShell>
  );
}
