import Link from 'next/link';
import { formatLength } from '@/core/units/length';
import { database } from '@/server/services/database';
import { readHistory } from '@/server/services/history';
import { currentSession } from '@/server/services/session';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';

export const dynamic = 'force-dynamic';

export default async function HistoryPage() {
  const session = await currentSession();
  const lines = await readHistory(database(), { shopId: session.shop.id });
  const system = session.person.unitSystem;
  return (
    <HomeShell here="History" people={session}>
      <h1>
        {lines.length === 0
          ? 'Nothing is kept yet: a calibration is written here when its confirming cut passes'
          : 'What was set, by whom, and how it was confirmed'}
      </h1>
      {lines.length > 0 && (
        <div className="table-responsive">
          <table className="plain">
            <thead>
              <tr>
                <th>when</th>
                <th>printer + cutter</th>
                <th>what</th>
                <th>worst corner</th>
                <th>bound</th>
                <th>allowed</th>
                <th>who</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => (
                <tr key={l.id}>
                  <td>
                    <Link href={`/history/${l.id}`} prefetch={false}>
                      {stampWords(l.at, session.person.timeZone)}
                    </Link>
                  </td>
                  <td>{`${l.setupName}, ${l.materialName}`}</td>
                  <td>{l.kind === 'saved' ? 'confirmed' : 'put back, to be confirmed'}</td>
                  <td className="figures">{l.worstMm === null ? '\u2013' : formatLength(l.worstMm, system)}</td>
                  <td className="figures">{l.upperMm === null ? '\u2013' : formatLength(l.upperMm, system)}</td>
                  <td className="figures">{l.toleranceMm === null ? '\u2013' : formatLength(l.toleranceMm, system)}</td>
                  <td>{l.by}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </HomeShell>
  );
}
