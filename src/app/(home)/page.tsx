import { now } from '@/server/clock';
import { readBench, type BenchSetup } from '@/server/services/bench';
import { benchSentences, otherWords, reasonsOf } from '@/server/services/trust-words';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { benchHeadline } from '@/ui/components/bench-words';
import { agoWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import Link from 'next/link';
import type { UnitSystem } from '@/core/units/length';
import { SetupCard, type SetupCardView } from '@/ui/components/SetupCard';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

function viewOf(setup: BenchSetup, today: Date, system: UnitSystem): SetupCardView {
  const { events, open, materials, failedMm, ...rest } = setup;
  const [latest, ...others] = materials;
  return {
    ...rest,
    worstMm: failedMm ?? latest?.worstMm ?? null,
    materialId: latest?.materialId ?? null,
    sentences: benchSentences(setup, (at) => agoWords(at, today), system),
    reasons: latest ? reasonsOf(latest, system) : [],
    others: others.map((m) => ({
      id: m.materialId,
      name: m.materialName,
      state: m.state,
      words: otherWords(m, agoWords(m.confirmedAt, today), system),
    })),
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
      <PageHeading>
        {setups.length === 0 ? 'Nothing on the bench yet' : benchHeadline(setups.map((s) => s.state))}
      </PageHeading>
      {sorted.map((setup) => (
        <SetupCard key={setup.id} view={viewOf(setup, today, session.person.unitSystem)} />
      ))}
      <section className="own-shop">
        {session.shop.isDemo ? (
          <>
            <h2>This is the demo: every machine in it is a stand-in</h2>
            <Link className="btn btn-primary" href="/shop/start" prefetch={false}>
              Start my own shop
            </Link>
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
