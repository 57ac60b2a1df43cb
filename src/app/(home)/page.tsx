import { now } from '@/server/clock';
import { readBench, type BenchSetup } from '@/server/services/bench';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { benchHeadline } from '@/ui/components/bench-words';
import { agoWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import Link from 'next/link';
import { SetupCard, type SetupCardView } from '@/ui/components/SetupCard';
import { StartOwnShop } from '@/ui/shop/StartOwnShop';

export const dynamic = 'force-dynamic';

function viewOf(setup: BenchSetup, today: Date): SetupCardView {
  const { confirmedAt, confirmedBy, events, open, ...rest } = setup;
  return {
    ...rest,
    since: confirmedAt ? `${agoWords(confirmedAt, today)} by ${confirmedBy ?? 'someone'}` : null,
    events: events.map(({ at, ...e }) => ({ ...e, ago: agoWords(at, today) })),
    open: open ? { id: open.id, step: open.step } : null,
  };
}

const ORDER = { stop: 0, 'check-first': 1, 'not-confirmed': 2, 'in-register': 3 } as const;

export default async function BenchPage() {
  const session = await currentSession();
  const setups = await readBench(database(), session.shop.id);
  const today = now();
  const sorted = [...setups].sort((a, b) => ORDER[a.state] - ORDER[b.state]);
  return (
    <HomeShell here="Bench" people={session}>
      <h1>{setups.length === 0 ? 'Nothing on the bench yet' : benchHeadline(setups.map((s) => s.state))}</h1>
      {sorted.map((setup) => (
        <SetupCard key={setup.id} view={viewOf(setup, today)} system={session.person.unitSystem} />
      ))}
      <section className="own-shop">
        {session.shop.isDemo ? (
          <>
            <h2>This is the demo: every machine in it is a stand-in</h2>
            <StartOwnShop />
          </>
        ) : (
          <Link
            className={`btn ${setups.length === 0 ? 'btn-primary' : 'btn-quiet'}`}
            href="/shop/new"
            prefetch={false}
          >
            {setups.length === 0 ? 'Add your printer + cutter' : 'Add another printer + cutter'}
          </Link>
        )}
      </section>
    </HomeShell>
  );
}
