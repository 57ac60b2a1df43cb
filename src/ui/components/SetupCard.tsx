'use client';

import { v4 as uuid } from 'uuid';
import Link from 'next/link';
import { useState, useTransition } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { STEP_LABELS, type StepName } from '@/contracts/steps';
import type { SetupState } from '@/core/trust/setup-state';
import { EVENT_KINDS, eventWords } from '@/core/trust/event-kinds';
import { formatLength, type UnitSystem } from '@/core/units/length';
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
  readonly nextJobMm: number | null;
  /** "6 days ago by Marit", or null. */
  readonly since: string | null;
  readonly events: readonly {
    readonly id: string;
    readonly words: string;
    readonly note: string;
    readonly ago: string;
    readonly by: string;
    readonly isAutomatic: boolean;
  }[];
  readonly open: { readonly id: string; readonly step: StepName } | null;
}

function stateSentence(view: SetupCardView, system: UnitSystem): string {
  const allowed = `${formatLength(view.toleranceMm, system)} allowed`;
  if (view.worstMm === null) return `Nothing measured yet; ${allowed}.`;
  const out = `Out by ${formatLength(view.worstMm, system)} at the worst corner, ${allowed}`;
  if (view.state === 'stop') return `${out}. The last confirming cut failed.`;
  return `${out}. Confirmed ${view.since ?? ''}.`;
}

function NextThing({ view }: { readonly view: SetupCardView }) {
  const isPressing = view.state !== 'in-register';
  if (view.open) {
    return (
      <Link className="btn btn-primary" href={`/calibrations/${view.open.id}/${view.open.step}`} prefetch={false}>
        {`Go on: ${STEP_LABELS[view.open.step]}`}
      </Link>
    );
  }
  return (
    <Link className={`btn ${isPressing ? 'btn-primary' : 'btn-quiet'}`} href={`/setups/${view.id}`} prefetch={false}>
      {isPressing ? 'Quick check, 15 minutes' : 'Check it again'}
    </Link>
  );
}

/** One setup on the bench: gauge, state, what happened since, the one thing to do next. */
export function SetupCard({ view, system }: { readonly view: SetupCardView; readonly system: UnitSystem }) {
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
          {view.isSimulated ? ' (stand-ins)' : ''}. {view.note}.
        </p>
        <p className="mb-1">{stateSentence(view, system)}</p>
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
