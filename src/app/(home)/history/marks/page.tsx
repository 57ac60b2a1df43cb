import { MARK_FACTOR_WORDS, MARK_FACTORS, MarkReadingQuery } from '@/contracts/floor';
import { database } from '@/server/services/database';
import { readMarkReadings, type MarkGroup } from '@/server/services/mark-readings';
import { readMachines } from '@/server/services/shop-read';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { ShareBar } from '@/ui/floor/ShareBar';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly searchParams: Promise<Record<string, string>>;
}

const AGAINST = { better: 'better than the others', worse: 'worse than the others' } as const;

function Groups({ groups, by }: { readonly groups: readonly MarkGroup[]; readonly by: string }) {
  return (
    <div className="table-responsive" role="region" aria-label="How marks are read" tabIndex={0}>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">{by}</th>
            <th scope="col">read</th>
            <th scope="col">share, and where it may truly lie</th>
            <th scope="col">against the others</th>
          </tr>
        </thead>
        <tbody>
          {groups.map((g) => (
            <tr key={g.words}>
              <th scope="row">{g.words}</th>
              <td className="figures text-nowrap">
                {g.hits} of {g.tries}
              </td>
              <td>
                <ShareBar share={g.share} />
              </td>
              <td>{g.against ? AGAINST[g.against] : 'may be chance'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function headline(groups: readonly MarkGroup[]): string {
  const worst = groups.find((g) => g.against === 'worse');
  if (groups.length === 0) return 'Nobody wrote down yet how marks were read';
  if (worst) return `Marks are read less often with: ${worst.words}`;
  return 'How often the eye finds the marks';
}

/** How often marks are read, by material, finish, mat, light and inset. */
export default async function MarksPage({ searchParams }: Props) {
  const [session, asked] = await Promise.all([currentSession(), searchParams]);
  const { setup, by } = MarkReadingQuery.parse(asked);
  const system = session.person.unitSystem;
  const [groups, { setups }] = await Promise.all([
    readMarkReadings(database(), session.shop.id, { setup, by, system }),
    readMachines(database(), session.shop.id),
  ]);
  return (
    <HomeShell here="History" people={session}>
      <PageHeading>{headline(groups)}</PageHeading>
      <form className="d-flex flex-wrap gap-3 align-items-end mb-3" action="/history/marks">
        <div>
          <label className="form-label" htmlFor="setup">
            Printer + cutter
          </label>
          <select id="setup" name="setup" className="form-select" defaultValue={setup ?? ''}>
            <option value="">all</option>
            {setups.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </div>
        <div>
          <label className="form-label" htmlFor="by">
            Told apart by
          </label>
          <select id="by" name="by" className="form-select" defaultValue={by}>
            <option value="all">everything together</option>
            {MARK_FACTORS.map((f) => (
              <option key={f} value={f}>
                {MARK_FACTOR_WORDS[f]}
              </option>
            ))}
          </select>
        </div>
        <button type="submit" className="btn btn-quiet">
          Show
        </button>
      </form>
      {groups.length > 0 ? (
        <Groups groups={groups} by={by === 'all' ? 'material, finish, mat, light, inset' : MARK_FACTOR_WORDS[by]} />
      ) : (
        <p>Each cut of a check sheet counts by itself; for a job, say with its result when the eye found the marks.</p>
      )}
      <p className="quiet">
        Each time the eye looks counts once. The range holds the true share nineteen times in twenty (Wilson). Better or
        worse is said only where chance alone would seldom do it (Fisher&rsquo;s exact test at 5 %, shared out over the
        lines).
      </p>
    </HomeShell>
  );
}
