'use client';

import { v4 as uuid } from 'uuid';
import Link from 'next/link';
import { useState, useTransition } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { STEP_LABELS, type StepName } from '@/contracts/steps';
import type { SetupState } from '@/core/trust/setup-state';
import { EVENT_KINDS, eventWords } from '@/core/trust/event-kinds';
import { NEXT_STEPS, type NextStep } from '@/core/trust/next-step';
import { somethingHappened, takeBack } from '@/server/actions/shop';
import { PlumbGauge } from './PlumbGauge';
import { StateMark } from './StateMark';

export interface SetupCardView {
  readonly id: string;
  readonly name: string;
  readonly machines: string;
  readonly note: string;
  readonly isSimulated: boolean;
  readonly state: SetupState;
  readonly toleranceMm: number;
  readonly worstMm: number | null;
  /** Material that was confirmed last; null while none was. */
  readonly materialId: string | null;
  /** How it stands, a sentence each. */
  readonly sentences: readonly string[];
  /** What that rests on: the sum, and what the doubt is made of. */
  readonly reasons: readonly string[];
  readonly next: NextStep | null;
  /** Other materials that were ever confirmed here. */
  readonly others: readonly {
    readonly id: string;
    readonly name: string;
    readonly state: SetupState;
    readonly words: string;
  }[];
  readonly events: readonly {
    readonly id: string;
    readonly words: string;
    readonly note: string;
    readonly ago: string;
    readonly isAutomatic: boolean;
  }[];
  readonly open: { readonly id: string; readonly step: StepName } | null;
}

function NextThing({ view }: { readonly view: SetupCardView }) {
  if (view.open) {
    return (
      <Link className="btn btn-primary" href={`/calibrations/${view.open.id}/${view.open.step}`} prefetch={false}>
        {`Go on: ${STEP_LABELS[view.open.step]}`}
      </Link>
    );
  }
  const { id, next, materialId } = view;
  const piece = `/setups/${id}/daily${materialId ? `?material=${materialId}` : ''}`;
  return (
    <>
      {next && (
        <Link className="btn btn-primary" href={next === 'quick-check' ? `/setups/${id}` : piece} prefetch={false}>
          {NEXT_STEPS[next]}
        </Link>
      )}
      {materialId && (next === null || next === 'quick-check') && (
        <Link className="btn btn-quiet" href={piece} prefetch={false}>
          {NEXT_STEPS['daily-check']}
        </Link>
      )}
      {next !== 'quick-check' && (
        <Link className="btn btn-quiet" href={`/setups/${id}`} prefetch={false}>
          Check it again
        </Link>
      )}
    </>
  );
}

/** Other materials of a setup, each with its own state. */
function Others({ others }: Pick<SetupCardView, 'others'>) {
  if (others.length === 0) return null;
  return (
    <ul className="happened">
      {others.map((m) => (
        <li key={m.id}>
          {m.name} <StateMark state={m.state} /> <span className="quiet">{m.words}</span>
        </li>
      ))}
    </ul>
  );
}

/** One setup on the bench: gauge, state, what happened since, the one thing to do next. */
export function SetupCard({ view }: { readonly view: SetupCardView }) {
  const [logged, setLogged] = useState<{ id: string; words: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();

  const log = (kind: string): void => {
    const id = uuid();
    startTransition(async () => {
      const done = await somethingHappened({ id, setupId: view.id, kind, note: '' });
      setProblem(done.ok ? null : done.message);
      if (done.ok) setLogged({ id, words: eventWords(kind) });
    });
  };
  const undo = (eventId: string): void => {
    startTransition(async () => {
      const done = await takeBack({ id: uuid(), eventId, setupId: view.id });
      setProblem(done.ok ? null : done.message);
      if (done.ok) setLogged(null);
    });
  };

  return (
    <article className="setup-card" aria-label={view.name}>
      <PlumbGauge worstMm={view.state === 'not-confirmed' ? null : view.worstMm} toleranceMm={view.toleranceMm} />
      <div>
        <h2>
          {view.name} <StateMark state={view.state} />
        </h2>
        <p className="quiet mb-1">
          {view.machines}
          {view.isSimulated ? ' (stand-ins)' : ''}.{view.note ? ` ${view.note}.` : ''}
        </p>
        {view.sentences.map((words) => (
          <p key={words} className="mb-1">
            {words}
          </p>
        ))}
        {view.reasons.length > 0 && (
          <details className="mb-1">
            <summary>Why?</summary>
            {view.reasons.map((words) => (
              <p key={words} className="quiet mb-1">
                {words}
              </p>
            ))}
            <Link href={`/setups/${view.id}/policy`} prefetch={false}>
              When it is checked again
            </Link>
          </details>
        )}
        <Others others={view.others} />
        {view.events.length > 0 && (
          <ul className="happened">
            {view.events.map((e) => (
              <li key={e.id}>
                {`Since then: ${e.words}, ${e.ago}${e.note ? ` (${e.note})` : ''}.`}
                {!e.isAutomatic && (
                  <button
                    type="button"
                    className="btn-plain ms-2"
                    disabled={isBusy}
                    onClick={() => {
                      undo(e.id);
                    }}
                  >
                    Take it back
                  </button>
                )}
              </li>
            ))}
          </ul>
        )}
        <p className="mb-0" role="status">
          {logged && `Written down: ${logged.words}. `}
          {logged && (
            <button
              type="button"
              className="btn-plain"
              onClick={() => {
                undo(logged.id);
              }}
            >
              Undo
            </button>
          )}
          {problem}
        </p>
      </div>
      <div className="setup-do">
        <NextThing view={view} />
        <Dropdown>
          <Dropdown.Toggle variant="quiet" disabled={isBusy}>
            Something happened
          </Dropdown.Toggle>
          <Dropdown.Menu>
            {EVENT_KINDS.map((e) => (
              <Dropdown.Item
                key={e.kind}
                as="button"
                type="button"
                onClick={() => {
                  log(e.kind);
                }}
              >
                {e.words}
              </Dropdown.Item>
            ))}
          </Dropdown.Menu>
        </Dropdown>
      </div>
    </article>
  );
}
