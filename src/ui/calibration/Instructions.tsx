import type { ReactNode } from 'react';
import { PreflightList, type PreflightView } from './PreflightList';
import { PrintButton } from '../components/PrintButton';

export interface InstructionsView {
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
  readonly preflight: PreflightView;
  readonly files: readonly {
    readonly kind: string;
    readonly words: string;
    readonly isMain: boolean;
    readonly href: string;
  }[];
}

/** Files, then what to do with them, one thing at a time; cautions at the step where the hazard is. */
export function Instructions({ view, children }: { readonly view: InstructionsView; readonly children?: ReactNode }) {
  return (
    <div>
      {view.files.length > 0 && (
        <p className="d-flex flex-wrap gap-2">
          {view.files.map((f) => (
            <a key={f.kind} className={`btn ${f.isMain ? 'btn-primary' : 'btn-quiet'}`} href={f.href} download>
              {f.words}
            </a>
          ))}
        </p>
      )}
      <PreflightList view={view.preflight} />
      <ol className="steps">
        {view.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      {children}
      <PrintButton />
      {view.cautions.map((c) => (
        <p key={c} className="caution">
          {c}
        </p>
      ))}
    </div>
  );
}
