import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { database } from '@/server/services/database';
import { changeView } from '@/server/services/change-view';
import { readHistoryEntry, type HistoryDetail } from '@/server/services/history';
import { putBackPlan } from '@/server/services/put-back';
import { currentSession } from '@/server/services/session';
import { PutBackButton } from '@/ui/components/PutBackButton';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';

export const dynamic = 'force-dynamic';

function headline({ line, beforeWorstMm }: HistoryDetail, system: UnitSystem): string {
  const before = beforeWorstMm === null ? '' : `out by ${formatLength(beforeWorstMm, system)} before, `;
  const after = line.worstMm === null ? 'put back, not confirmed since' : `${formatLength(line.worstMm, system)} after`;
  return `${line.setupName}: ${before}${after}`;
}

export default async function HistoryEntryPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const [session, detail, plan] = await Promise.all([
    currentSession(),
    readHistoryEntry(database(), id),
    putBackPlan(database(), id),
  ]);
  if (!detail) notFound();
  const { line } = detail;
  const system = session.person.unitSystem;
  return (
    <HomeShell here="History" people={session}>
      <h1>{headline(detail, system)}</h1>
      <p className="quiet">{`${stampWords(line.at, session.person.timeZone)}, ${line.by}, ${line.materialName}.`}</p>
      {line.upperMm !== null && line.nextJobMm !== null && line.toleranceMm !== null && (
        <p>{`Below ${formatLength(line.upperMm, system)} with 95 % confidence, ${formatLength(line.toleranceMm, system)} allowed. Next job within ${formatLength(line.nextJobMm, system)} 95 times in 100.`}</p>
      )}
      <h2>What was set</h2>
      {detail.changes.length === 0 ? (
        <p>
          {line.objective === 'none'
            ? 'Nothing was changed.'
            : 'Nothing on the machine: cut lines were moved in the file.'}
        </p>
      ) : null}
      {detail.changes.map((c) => (
        <p key={c.name} className="set-words">
          <strong>{c.name}</strong> <span className="figures">{`${c.before} \u2192 ${c.after}`}</span>
          <span className="quiet d-block">{c.words}</span>
        </p>
      ))}
      {plan && <PutBackButton historyEntryId={line.id} changes={plan.changes.map((c) => changeView(c, plan.feeds))} />}
      {line.calibrationId && (
        <p>
          <Link href={`/calibrations/${line.calibrationId}/map`} prefetch={false}>
            The calibration it came from
          </Link>
        </p>
      )}
      {detail.readings.length > 0 && (
        <details>
          <summary>The confirming readings</summary>
          <table className="plain">
            <thead>
              <tr>
                <th>spot</th>
                <th>cut against print</th>
                <th>off the map</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              {detail.readings.map((r) => (
                <tr key={`${r.spotNo} ${r.axis}`}>
                  <td>{`${r.spotNo} ${r.axis}`}</td>
                  <td className="figures">{formatLength(r.displacementMm, system, true)}</td>
                  <td className="figures">{formatLength(r.residualMm, system, true)}</td>
                  <td>{r.used ? '' : 'left out'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
    </HomeShell>
  );
}
