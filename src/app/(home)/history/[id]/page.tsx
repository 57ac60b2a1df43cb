import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { formatLength, formatSize, type UnitSystem } from '@/core/units/length';
import { database } from '@/server/services/database';
import { changeView } from '@/server/services/change-view';
import { readHistoryEntry, type HistoryDetail } from '@/server/services/history';
import { putBackPlan } from '@/server/services/put-back';
import { currentSession } from '@/server/services/session';
import { readNotes, readOthers, type Note, type RecordLine } from '@/server/services/shop-record';
import { PutBackButton } from '@/ui/components/PutBackButton';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import { NoteForm } from '@/ui/history/NoteForm';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

function headline({ line, beforeWorstMm }: HistoryDetail, system: UnitSystem): string {
  const before = beforeWorstMm === null ? '' : `out by ${formatLength(beforeWorstMm, system)} before, `;
  const after = line.worstMm === null ? 'put back, not confirmed since' : `${formatLength(line.worstMm, system)} after`;
  return `${line.setupName}: ${before}${after}`;
}

interface BesideProps {
  readonly id: string;
  readonly notes: readonly Note[];
  readonly others: readonly RecordLine[];
  readonly stamp: (at: Date) => string;
}

/** Notes that were written beside the entry, and others that it can be held against. */
function Beside({ id, notes, others, stamp }: BesideProps) {
  return (
    <>
      <h2>Notes</h2>
      {notes.length > 0 && (
        <ul>
          {notes.map((n) => (
            <li key={n.id}>
              {n.note} <span className="quiet">{`${stamp(n.at)}, ${n.by}`}</span>
            </li>
          ))}
        </ul>
      )}
      <NoteForm historyEntryId={id} />
      {others.length > 0 && (
        <form action="/history/compare" className="d-flex flex-wrap gap-3 align-items-end mb-3">
          <input type="hidden" name="one" value={id} />
          <div>
            <label className="form-label" htmlFor="other">
              Hold it against
            </label>
            <select id="other" name="other" className="form-select">
              {others.map((o) => (
                <option key={o.id} value={o.id}>
                  {`${stamp(o.at)}, ${o.thing}, ${o.materialName ?? ''}`}
                </option>
              ))}
            </select>
          </div>
          <button type="submit" className="btn btn-quiet">
            Compare
          </button>
        </form>
      )}
    </>
  );
}

export default async function HistoryEntryPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const [session, detail, plan, notes] = await Promise.all([
    currentSession(),
    readHistoryEntry(database(), id),
    putBackPlan(database(), id),
    readNotes(database(), id),
  ]);
  if (!detail) notFound();
  const others = await readOthers(database(), session.shop.id, detail);
  const { line } = detail;
  const system = session.person.unitSystem;
  return (
    <HomeShell here="History" people={session}>
      <PageHeading>{headline(detail, system)}</PageHeading>
      <p className="quiet">{`${stampWords(line.at, session.person.timeZone)}, ${line.by}, ${line.materialName}.`}</p>
      {line.upperMm !== null && line.nextJobMm !== null && line.toleranceMm !== null && (
        <p>{`Below ${formatLength(line.upperMm, system)} with 95 % confidence, ${formatSize(line.toleranceMm, system)} allowed. Next job within ${formatLength(line.nextJobMm, system)} 95 times in 100.`}</p>
      )}
      {line.worstMm !== null && (
        <p>
          <a href={`/history/${id}/certificate`} download>
            Certificate (PDF)
          </a>
        </p>
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
      {plan && (
        <PutBackButton
          historyEntryId={line.id}
          changes={plan.changes.map((c) => changeView(c, { feeds: plan.feeds, ownTest: null }))}
        />
      )}
      {line.calibrationId && (
        <p>
          <Link href={`/calibrations/${line.calibrationId}/map`} prefetch={false}>
            The calibration it came from
          </Link>
        </p>
      )}
      <Beside id={id} notes={notes} others={others} stamp={(at) => stampWords(at, session.person.timeZone)} />
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
