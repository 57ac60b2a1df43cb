import Link from 'next/link';
import { z } from 'zod';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { readSpoilage, type Spoilage, type SpoiledGroup } from '@/server/services/spoilage';
import { moneyWords } from '@/ui/components/money';
import { HomeShell } from '@/ui/components/HomeShell';
import { CostBars } from '@/ui/floor/CostBars';
import { ShareBar } from '@/ui/floor/ShareBar';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

const Query = z.object({ days: z.coerce.number().int().min(1).max(3660).catch(365) });
const STRETCHES = [
  [31, 'a month'],
  [92, 'three months'],
  [365, 'a year'],
  [1826, 'five years'],
] as const;

interface GroupsProps {
  readonly groups: readonly SpoiledGroup[];
  readonly head: string;
  readonly currency: string | null;
}

function Groups({ groups, head, currency }: GroupsProps) {
  return (
    <div className="table-responsive" role="region" aria-label={`Spoiled work by ${head}`} tabIndex={0}>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">{head}</th>
            <th scope="col">jobs</th>
            <th scope="col">good</th>
            <th scope="col">spoiled</th>
            <th scope="col">cost</th>
            <th scope="col">share of pieces, and where it may truly lie</th>
          </tr>
        </thead>
        <tbody>
          {groups.map((g) => (
            <tr key={g.words}>
              <th scope="row">{g.words}</th>
              {[g.jobs, g.good, g.spoiled].map((n, i) => (
                <td key={i} className="figures">
                  {n}
                </td>
              ))}
              <td className="figures">{moneyWords(g.cost, currency)}</td>
              <td>{g.share ? <ShareBar share={g.share} /> : 'no pieces told'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Worst({ worst, currency }: { readonly worst: Spoilage['worst']; readonly currency: string | null }) {
  return (
    <ul>
      {worst.map((w) => (
        <li key={w.id}>
          <Link href={`/jobs/${w.id}`} prefetch={false}>
            {w.words}
          </Link>
          : {w.spoiled} spoiled, cost {moneyWords(w.cost, currency)}
          {w.note && <span className="quiet">{`; ${w.note}`}</span>}
        </li>
      ))}
    </ul>
  );
}

function headline({ all }: Spoilage, stretch: string, currency: string | null): string {
  if (all.jobs === 0) return `No result was told in ${stretch}`;
  if (all.spoiled === 0 && all.cost === 0) return `Nothing was spoiled in ${all.jobs} jobs of ${stretch}`;
  return `${all.spoiled === 1 ? '1 piece' : `${all.spoiled} pieces`} spoiled in ${stretch}, ${moneyWords(all.cost, currency)}${currency === null ? ' in your money' : ''}`;
}

/** What was spoiled and what it cost: where a better setup would pay. */
export default async function SpoiledPage({ searchParams }: { searchParams: Promise<{ days?: string }> }) {
  const { days } = Query.parse(await searchParams);
  const session = await currentSession();
  const spoilage = await readSpoilage(database(), session.shop.id, days);
  const stretch = STRETCHES.find(([d]) => d === days)?.[1] ?? `${days} days`;
  const { currency } = session.shop;
  return (
    <HomeShell here="Jobs" people={session}>
      <PageHeading>{headline(spoilage, stretch, currency)}</PageHeading>
      <nav aria-label="Stretch of time" className="d-flex flex-wrap gap-2 mb-3">
        {STRETCHES.map(([d, words]) => (
          <Link
            key={d}
            href={`/jobs/spoiled?days=${d}`}
            prefetch={false}
            className={`btn ${d === days ? 'btn-primary' : 'btn-quiet'}`}
            aria-current={d === days ? 'page' : undefined}
          >
            {words}
          </Link>
        ))}
      </nav>
      {spoilage.all.jobs === 0 ? (
        <p>With the result of a job, say how many pieces were good and how many spoiled, and what those cost.</p>
      ) : (
        <>
          <h2>Cost, month by month</h2>
          <CostBars months={spoilage.months} currency={currency} />
          <h2 className="mt-3">Where</h2>
          <Groups groups={spoilage.groups} head="printer + cutter, material" currency={currency} />
          {spoilage.worst.length > 0 && <h2 className="mt-3">The costliest jobs</h2>}
          <Worst worst={spoilage.worst} currency={currency} />
          <p>
            {'Every result as a file: '}
            <a className="me-2" href="/lists/results?format=csv" download>
              CSV
            </a>
            <a href="/lists/results?format=json" download>
              JSON
            </a>
          </p>
        </>
      )}
    </HomeShell>
  );
}
