import type { NumberedFinding } from './job-findings';

/** What to look at before it is printed: numbered as in the picture, what stops it first. */
export function FindingList({ findings }: { readonly findings: readonly NumberedFinding[] }) {
  if (findings.length === 0) return <p className="mt-4">{'\u25cf'} Nothing to put right was found.</p>;
  return (
    <section aria-label="To look at" className="mt-4">
      <h2>To look at before it is printed</h2>
      <ol className="findings">
        {findings.map((f) => (
          <li key={f.no} className={f.severity}>
            <span className="figures no">{f.no}</span>
            <span>
              <strong>{f.severity === 'stop' ? '\u25a0 ' : '\u25d0 '}</strong>
              {f.itemName ? `${f.itemName}: ` : ''}
              {f.words} <span className="quiet">{f.todo}</span>
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
