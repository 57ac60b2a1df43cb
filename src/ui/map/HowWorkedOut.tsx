import type { Explanation } from '@/core/verdict/explain';

/** Each figure of the page opens what it was worked out from, so that it may be checked by hand. */
export function HowWorkedOut({ explanations }: { readonly explanations: readonly Explanation[] }) {
  return (
    <details>
      <summary>How was this worked out?</summary>
      <p className="quiet">Lengths in mm. Open what you want to check.</p>
      {explanations.map((e) => (
        <details key={e.id} className="ms-3">
          <summary>{e.title}</summary>
          <ol className="list-unstyled figures ms-3">
            {e.lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
        </details>
      ))}
    </details>
  );
}
