import type { Result } from '@/core/result';
import type { RuleFit, RuleFitError } from '@/core/registration/rule-fit';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { ruleParts, ruleProblemWords } from './rule-words';

interface Props {
  readonly fit: Result<RuleFit, RuleFitError>;
  readonly frame: { readonly widthMm: number; readonly lengthMm: number };
  readonly system: UnitSystem;
  readonly title: string;
}

/** What the measured lengths tell, what they cannot, and which of them do not fit. */
export function RuleResult({ fit, frame, system, title }: Props) {
  if (!fit.ok)
    return (
      <p role="status" className="quiet">
        {ruleProblemWords(fit.error.kind)}
      </p>
    );
  const parts = ruleParts(fit.value, frame, system);
  return (
    <section aria-label={title} role="status">
      <h2>{title}</h2>
      <table className="plain">
        <tbody>
          {parts.map((p) => (
            <tr key={p.name}>
              <th scope="row">{p.name}</th>
              <td className="figures">{p.words}</td>
              <td>{p.isClear ? '' : 'no more than measuring can make it'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {fit.value.odd.map(({ name, residualMm }) => (
        <p key={name} className="notice">
          {`Measure again: ${name}. It lies ${formatLength(Math.abs(residualMm), system)} off what the others say.`}
        </p>
      ))}
      {fit.value.untold.length > 0 && (
        <p className="quiet">{`These lengths do not tell: ${fit.value.untold.join(', ')}.`}</p>
      )}
    </section>
  );
}
