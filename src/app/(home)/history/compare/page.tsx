import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { PART_NAMES, partValueWords } from '@/core/verdict/part-words';
import type { UnitSystem } from '@/core/units/length';
import { compareEntries, type Comparison } from '@/server/services/compare';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly searchParams: Promise<{ one?: string; other?: string }>;
}

const Asked = z.object({ one: z.uuid(), other: z.uuid() });

/** A difference is told when it exceeds two of its standard uncertainties. */
const isTold = ({ difference }: Comparison['parts'][number]): boolean =>
  difference !== null && Math.abs(difference.value) > 2 * difference.standardUncertainty;

interface PartsProps {
  readonly comparison: Comparison;
  readonly heads: readonly string[];
  readonly system: UnitSystem;
}

function Parts({ comparison, heads, system }: PartsProps) {
  return (
    <div className="table-responsive">
      <table className="plain">
        <thead>
          <tr>
            <th>as it was left</th>
            {heads.map((head) => (
              <th key={head}>{head}</th>
            ))}
            <th>difference</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          {comparison.parts.map((p) => {
            const words = (v: number | null): string => (v === null ? '\u2013' : partValueWords(p.part, v, system));
            const { difference } = p;
            return (
              <tr key={p.part}>
                <td>{PART_NAMES[p.part]}</td>
                <td className="figures text-nowrap">{words(p.one)}</td>
                <td className="figures text-nowrap">{words(p.other)}</td>
                <td className="figures text-nowrap">
                  {difference &&
                    `${words(difference.value)} \u00b1 ${words(difference.standardUncertainty).replace('+', '')}`}
                </td>
                <td>{difference && (isTold(p) ? 'another' : 'cannot be told apart')}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** Any two entries of the history side by side. */
export default async function ComparePage({ searchParams }: Props) {
  const asked = Asked.safeParse(await searchParams);
  if (!asked.success) notFound();
  const [session, comparison] = await Promise.all([
    currentSession(),
    compareEntries(database(), asked.data.one, asked.data.other),
  ]);
  if (!comparison) notFound();
  const { person } = session;
  const heads = comparison.entries.map((e) => stampWords(e.at, person.timeZone));
  const told = comparison.parts.filter(isTold).map((p) => PART_NAMES[p.part]);
  return (
    <HomeShell here="History" people={session}>
      <PageHeading>
        {told.length > 0 ? `Another: ${told.join(', ')}` : 'Nothing between these two can be told apart'}
      </PageHeading>
      <ul>
        {comparison.entries.map((e, i) => (
          <li key={e.id}>
            <Link href={`/history/${e.id}`} prefetch={false}>
              {heads[i]}
            </Link>
            {` ${e.setupName}, ${e.materialName}`}
          </li>
        ))}
      </ul>
      <Parts comparison={comparison} heads={heads} system={person.unitSystem} />
      {comparison.settings.length > 0 && (
        <>
          <h2>On the display</h2>
          <table className="plain">
            <thead>
              <tr>
                <th>setting</th>
                {heads.map((head) => (
                  <th key={head}>{head}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {comparison.settings.map((s) => (
                <tr key={s.name}>
                  <td>{s.isSame ? s.name : <strong>{s.name}</strong>}</td>
                  <td className="figures">{s.one}</td>
                  <td className="figures">{s.other}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </HomeShell>
  );
}
