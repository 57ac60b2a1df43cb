'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { SCHOOLS, type School } from '@/core/charts/control-chart';
import { POLICY_KINDS, POLICY_WORDS, SCHOOL_WORDS, type Policy } from '@/core/trust/policy';
import { policyKept } from '@/server/actions/trust';
import { moneyUnit } from '../components/money';
import { FigureField } from '../components/FigureField';

export interface PolicyView {
  readonly setupId: string;
  /** Null: for every material that has none of its own. */
  readonly materialId: string | null;
  readonly id: string | null;
  readonly version: number;
  readonly policy: Policy & { readonly school: School };
  readonly currency: string | null;
}

type Figure = 'everyDays' | 'everyJobs' | 'costlyFrom' | 'spoilCost' | 'checkCost' | 'jobsAhead';

/** Unit null: an amount in the shop's currency. */
const FIGURES: Readonly<Record<Figure, readonly [label: string, unit: string | null]>> = {
  everyDays: ['Every', 'days'],
  everyJobs: ['Every', 'jobs'],
  costlyFrom: ['Costly from', null],
  jobsAhead: ['Jobs cut before anyone would look again', 'jobs'],
  spoilCost: ['A spoiled job loses', null],
  checkCost: ['A check takes', null],
};

const OWN: Readonly<Record<Policy['kind'], readonly Figure[]>> = {
  evidence: [],
  events: [],
  days: ['everyDays'],
  jobs: ['everyJobs'],
  costly: ['costlyFrom'],
};
/** What a spoiled job and a check cost: the sum is shown whatever the policy is. */
const COSTS: readonly Figure[] = ['jobsAhead', 'spoilCost', 'checkCost'];

interface ChoiceProps<T extends string> {
  readonly legend: string;
  readonly name: string;
  readonly words: Readonly<Record<T, string>>;
  readonly all: readonly T[];
  readonly chosen: T;
  readonly onChoose: (value: T) => void;
}

function Choice<T extends string>({ legend, name, words, all, chosen, onChoose }: ChoiceProps<T>) {
  return (
    <fieldset>
      <legend className="h2">{legend}</legend>
      {all.map((value) => (
        <label key={value} className="choice">
          <input
            type="radio"
            name={name}
            checked={value === chosen}
            onChange={() => {
              onChoose(value);
            }}
          />
          <span>{words[value]}</span>
        </label>
      ))}
    </fieldset>
  );
}

/** When a setup is checked again, what a spoiled job and a check cost, and which chart is kept. */
export function PolicyForm({ view }: { readonly view: PolicyView }) {
  const router = useRouter();
  const [policy, setPolicy] = useState(view.policy);
  const [wrong, setWrong] = useState<ReadonlySet<Figure>>(new Set());
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const change = (figure: Figure, value: number | null): void => {
    const next = new Set(wrong);
    if (value === null) next.add(figure);
    else next.delete(figure);
    setWrong(next);
    if (value !== null) setPolicy({ ...policy, [figure]: value });
  };
  const keep = (): void => {
    startTransition(async () => {
      const { setupId, materialId, id, version } = view;
      const { kind, school, everyDays, everyJobs, costlyFrom, spoilCost, checkCost, jobsAhead } = policy;
      const done = await policyKept({
        ...{ id: id ?? uuid(), setupId, materialId, version, kind, school },
        ...{ everyDays, everyJobs, costlyFrom, spoilCost, checkCost, jobsAhead },
      });
      setTold(done.ok ? 'Kept.' : done.message);
      if (done.ok) router.refresh();
    });
  };
  const fields = (figures: readonly Figure[]) =>
    figures.map((figure) => (
      <FigureField
        key={figure}
        label={FIGURES[figure][0]}
        unit={FIGURES[figure][1] ?? moneyUnit(view.currency)}
        initial={policy[figure]}
        onChange={(value) => {
          change(figure, value);
        }}
      />
    ));
  return (
    <section aria-label="When it is checked again">
      <Choice
        legend="Check it again"
        name="kind"
        words={POLICY_WORDS}
        all={POLICY_KINDS}
        chosen={policy.kind}
        onChoose={(kind) => {
          setPolicy({ ...policy, kind });
        }}
      />
      <div className="d-flex flex-wrap gap-3">{fields(OWN[policy.kind])}</div>
      {policy.kind !== 'evidence' && policy.kind !== 'events' && (
        <p className="quiet">Anything that happens to the machine makes it due as well.</p>
      )}
      <h2>What it costs</h2>
      <p className="quiet">
        Jobs to come × what a check takes off the share of jobs that come out wrong × what one of them loses, against
        what the check takes.
      </p>
      <div className="d-flex flex-wrap gap-3">{fields(COSTS)}</div>
      <Choice
        legend="Chart of the daily checks"
        name="school"
        words={SCHOOL_WORDS}
        all={SCHOOLS}
        chosen={policy.school}
        onChoose={(school) => {
          setPolicy({ ...policy, school });
        }}
      />
      <button type="button" className="btn btn-primary" disabled={isBusy || wrong.size > 0} onClick={keep}>
        Keep it
      </button>
      <p role="status">{told}</p>
    </section>
  );
}
