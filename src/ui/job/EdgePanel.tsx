'use client';

import { EDGE_KINDS, type JobDraft } from '@/core/layout/job-draft';
import { formatSize, type UnitSystem } from '@/core/units/length';
import type { EdgeAnswer } from '@/workers/layout.client';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';
import { budgetLines, edgeSentence, neededSentence } from './edge-words';

interface Props {
  readonly draft: JobDraft;
  readonly system: UnitSystem;
  /** Narrowest edge in use. */
  readonly edgeMm: number;
  readonly answer: EdgeAnswer | null;
  /** Of the setup: since when its error is known, and whether the noise of its marks is assumed; null where nothing is. */
  readonly known: { readonly since: string; readonly isMarkSdAssumed: boolean } | null;
  readonly onChange: (next: Partial<JobDraft>) => void;
}

const KIND_WORDS = {
  border: ['White border', 'cut outside the art'],
  bleed: ['Bleed', 'cut inside the art'],
  none: ['Neither', 'cut on its edge'],
} as const;

type FieldsProps = Pick<Props, 'draft' | 'system' | 'onChange'> & { readonly taken: number | null };

/** How wide, for how many jobs, and how much warmer or colder it may get in between. */
function EdgeFields({ draft, system, onChange, taken }: FieldsProps) {
  const { edge, yieldShare, warmingK } = draft;
  return (
    <div className="d-flex flex-wrap gap-3">
      {edge.kind !== 'none' && (
        <LengthField
          key={`edge ${edge.kind} ${taken === edge.mm ? 'taken' : ''}`}
          label={KIND_WORDS[edge.kind][0]}
          system={system}
          initialMm={edge.mm}
          onChange={(mm) => {
            if (mm !== null && mm >= 0) onChange({ edge: { ...edge, mm } });
          }}
        />
      )}
      <FigureField
        label="Jobs with nothing to be seen"
        unit="%"
        initial={Number((yieldShare * 100).toFixed(1))}
        onChange={(value) => {
          if (value !== null && value >= 50 && value <= 99.9) onChange({ yieldShare: value / 100 });
        }}
      />
      <FigureField
        label="Warmer or colder at the cut, up to"
        unit="K"
        initial={warmingK}
        onChange={(value) => {
          if (value !== null && value >= 0 && value <= 60) onChange({ warmingK: value });
        }}
      />
    </div>
  );
}

type ToldProps = Omit<Props, 'answer'> & { readonly answer: EdgeAnswer; readonly needed: number };

/** On how many pieces the error shows, what would be enough, and how that was worked out. */
function Told({ draft, system, edgeMm, answer, known, needed, onChange }: ToldProps) {
  const { edge, yieldShare } = draft;
  return (
    <>
      <p className="mb-1" role="status">
        <strong>{edgeSentence(edge.kind, edgeMm, answer, system)}</strong>
      </p>
      <p>{neededSentence(edgeMm, answer, yieldShare, system)}</p>
      {edgeMm < answer.neededMm && edge.kind !== 'none' && (
        <button
          type="button"
          className="btn btn-quiet mb-2"
          onClick={() => {
            onChange({ edge: { ...edge, mm: needed } });
          }}
        >
          {`Take ${formatSize(needed, system)}`}
        </button>
      )}
      <details>
        <summary>How was this worked out?</summary>
        <ul className="figures">
          {budgetLines(answer.budget, answer.budgetMm).map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        <p className="quiet">
          {`4,000 next jobs were simulated from what was confirmed ${known?.since ?? ''}.`}
          {known?.isMarkSdAssumed
            ? ' The noise of reading the marks is assumed (0.05 mm): checks of three loads and more would tell it.'
            : ''}
        </p>
      </details>
    </>
  );
}

/** Border or bleed, and what it takes to hide this setup's next error. */
export function EdgePanel(props: Props) {
  const { draft, system, answer, known, onChange } = props;
  const { edge } = draft;
  const needed = answer ? Math.ceil(answer.neededMm * 20) / 20 : null;
  return (
    <section aria-label="Border or bleed" className="mt-4">
      <h2>Border or bleed</h2>
      <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="How the cut lies to the art">
        {EDGE_KINDS.map((kind) => (
          <button
            key={kind}
            type="button"
            className={`btn ${kind === edge.kind ? 'btn-primary' : 'btn-quiet'}`}
            aria-pressed={kind === edge.kind}
            onClick={() => {
              onChange({ edge: { ...edge, kind } });
            }}
          >
            {KIND_WORDS[kind][0]}
          </button>
        ))}
      </div>
      <p className="quiet">
        {`${KIND_WORDS[edge.kind][1]}; a drawing\u2019s own cut lines keep the distance they were drawn with`}
      </p>
      <EdgeFields draft={draft} system={system} onChange={onChange} taken={needed} />
      {!known && (
        <p className="notice">
          Nothing is confirmed on this printer + cutter yet: what its next job is out by is not known, and no border can
          be told from it. Check it first.
        </p>
      )}
      {answer && needed !== null && <Told {...props} answer={answer} needed={needed} />}
    </section>
  );
}
