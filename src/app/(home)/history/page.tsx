import Link from 'next/link';
import { HistoryQuery, type HistoryQueryInput } from '@/contracts/history';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { findMaterials, findSetups } from '@/server/services/named';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { readRecord, type RecordLine, type RecordPage } from '@/server/services/shop-record';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import { HistoryFilter } from '@/ui/history/HistoryFilter';
import { RECORD_WORDS } from '@/ui/history/record-words';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

interface RowProps {
  readonly line: RecordLine;
  readonly system: UnitSystem;
  readonly stamp: (at: Date) => string;
}

const figure = (mm: number | null, system: UnitSystem): string => (mm === null ? '\u2013' : formatLength(mm, system));

function Row({ line, system, stamp }: RowProps) {
  const when = stamp(line.at);
  return (
    <tr>
      <td className="text-nowrap">
        {line.href ? (
          <Link href={line.href} prefetch={false}>
            {when}
          </Link>
        ) : (
          when
        )}
      </td>
      <td>{[line.thing, line.materialName].filter(Boolean).join(', ')}</td>
      <td>
        {RECORD_WORDS[line.kind]}
        {line.words && <span className="quiet">{`: ${line.words}`}</span>}
        {line.notes > 0 && <span className="quiet">{` (${line.notes} ${line.notes === 1 ? 'note' : 'notes'})`}</span>}
      </td>
      <td className="figures text-nowrap">{figure(line.worstMm, system)}</td>
      <td className="figures text-nowrap">{figure(line.upperMm, system)}</td>
      <td className="figures text-nowrap">{figure(line.toleranceMm, system)}</td>
      <td>{line.by}</td>
    </tr>
  );
}

function headline({ lines }: RecordPage, query: HistoryQueryInput): string {
  if (lines.length > 0) return 'What was set, by whom, and how it was confirmed';
  return Object.values(query).some(Boolean)
    ? 'Nothing in the record is like that'
    : 'Nothing is kept yet: a calibration is written here when its confirming cut passes';
}

/** The same lines at another address: leafed on, or as a file. */
function hrefOf(path: string, query: HistoryQueryInput, more: Readonly<Record<string, string>>): string {
  const asked = Object.entries({ ...query, ...more }).filter((part): part is [string, string] => Boolean(part[1]));
  return `${path}?${new URLSearchParams(asked).toString()}`;
}

export default async function HistoryPage({ searchParams }: Props) {
  const query = HistoryQuery.parse(await searchParams);
  const session = await currentSession();
  const [page, setups, materials] = await Promise.all([
    readRecord(database(), session.shop.id, query),
    findSetups(database(), session.shop.id),
    findMaterials(database(), session.shop.id),
  ]);
  const { person } = session;
  return (
    <HomeShell here="History" people={session}>
      <PageHeading>{headline(page, query)}</PageHeading>
      <HistoryFilter key={JSON.stringify(query)} query={query} setups={setups} materials={materials} />
      {setups.length > 0 && (
        <nav aria-label="Over time" className="mb-3">
          {'Over time: '}
          {setups.map((s) => (
            <Link
              key={s.id}
              className="me-2 text-nowrap d-inline-block"
              href={`/history/over-time/${s.id}`}
              prefetch={false}
            >
              {s.name}
            </Link>
          ))}
        </nav>
      )}
      <p>
        <Link className="me-3" href="/history/marks" prefetch={false}>
          How marks are read
        </Link>
        <Link href="/jobs/spoiled" prefetch={false}>
          Spoiled work and its cost
        </Link>
      </p>
      {page.lines.length > 0 && (
        <div className="table-responsive">
          <table className="plain">
            <thead>
              <tr>
                <th>when</th>
                <th>printer + cutter</th>
                <th>what</th>
                <th>out by</th>
                <th>bound</th>
                <th>allowed</th>
                <th>who</th>
              </tr>
            </thead>
            <tbody>
              {page.lines.map((line) => (
                <Row
                  key={line.id}
                  line={line}
                  system={person.unitSystem}
                  stamp={(at) => stampWords(at, person.timeZone)}
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {page.lines.length > 0 && (
        <p>
          {'These lines as a file: '}
          {(['csv', 'json'] as const).map((format) => (
            <a key={format} className="me-2" href={hrefOf('/history/list', query, { format })} download>
              {format.toUpperCase()}
            </a>
          ))}
        </p>
      )}
      {page.next && (
        <p>
          <Link
            className="btn btn-quiet"
            href={hrefOf('/history', query, { before: page.next.toISOString() })}
            prefetch={false}
          >
            Older
          </Link>
        </p>
      )}
    </HomeShell>
  );
}
