'use client';

import { useState, useTransition } from 'react';
import type { SectionWork } from '@/contracts/rolls';
import type { UnitSystem } from '@/core/units/length';
import { sectionsAsked } from '@/server/actions/roll';
import { moneyUnit } from '../components/money';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';
import { RewindHelp } from './RewindHelp';

interface Props {
  readonly rollId: string;
  readonly work: SectionWork;
  readonly system: UnitSystem;
  readonly currency: string | null;
}

type Draft = { readonly [K in keyof SectionWork]: SectionWork[K] | null };

const REGISTRATIONS = [
  { id: 'origin', words: 'by its origin alone', help: 'no marks: a rewind or a hand-set origin begins each section' },
  {
    id: 'start-marks',
    words: 'by marks at its beginning',
    help: 'two marks, so far apart, tell where it lies and how it is turned',
  },
  {
    id: 'both-ends',
    words: 'by marks at both ends',
    help: 'or by marks every so much: what is steady in between is taken out',
  },
] as const;

const LENGTHS = {
  piece: [
    ['itemWidthMm', 'Piece, across'],
    ['itemLengthMm', 'Piece, along'],
    ['gapMm', 'Gap between pieces'],
    ['printableWidthMm', 'Printable width'],
    ['endWasteMm', 'Blank at each end'],
  ],
} as const;

/** Unit null: an amount in the shop's currency. */
const PRICES = [
  ['setUpMinutes', 'Set-up of one section', 'min'],
  ['finishMinutes', 'Finishing of one section', 'min'],
  ['printMetresPerHour', 'Printing', 'm/h'],
  ['cutMetresPerHour', 'Cutting', 'm/h'],
  ['hourCost', 'An hour', null],
  ['metreCost', 'A metre of roll', null],
  ['pieceCost', 'A spoilt piece', null],
  ['lateHourCost', 'An hour late', null],
] as const;

/** What the run is, how the machine registers a section, and what things cost. Kept as typed. */
export function SectionForm({ rollId, work, system, currency }: Props) {
  const [draft, setDraft] = useState<Draft>(work);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const take =
    <K extends keyof SectionWork>(name: K) =>
    (value: SectionWork[K] | null): void => {
      setDraft((now) => ({ ...now, [name]: value }));
    };
  const ask = (): void => {
    startTransition(async () => {
      const done = await sectionsAsked({ rollId, work: draft });
      setProblem(done.ok ? null : done.message);
    });
  };
  return (
    <form
      aria-label="The run"
      onSubmit={(e) => {
        e.preventDefault();
        ask();
      }}
    >
      <div className="d-flex flex-wrap gap-3">
        <FigureField label="Pieces in all" unit="" initial={work.copies} onChange={take('copies')} />
        {LENGTHS.piece.map(([name, label]) => (
          <LengthField key={name} label={label} system={system} initialMm={work[name]} onChange={take(name)} />
        ))}
      </div>
      <Registration draft={draft} work={work} system={system} take={take} />
      <details className="mb-3">
        <summary>What things take and cost</summary>
        <div className="d-flex flex-wrap gap-3 mt-2">
          {PRICES.map(([name, label, unit]) => (
            <FigureField
              key={name}
              label={label}
              unit={unit ?? moneyUnit(currency)}
              initial={work[name]}
              onChange={take(name)}
            />
          ))}
        </div>
      </details>
      <FigureField
        label="Wanted so long after printing begins"
        unit="h"
        initial={work.dueHours ?? undefined}
        onChange={take('dueHours')}
      />
      <LengthField
        label="Length you would type, to be checked"
        system={system}
        isOptional
        initialMm={work.typedLengthMm ?? undefined}
        onChange={take('typedLengthMm')}
      />
      <p className="d-flex gap-3 align-items-center">
        <button type="submit" className="btn btn-primary" disabled={isBusy}>
          {isBusy ? 'Trying thousands of rolls \u2026' : 'Work out the sections'}
        </button>
        <span role="alert">{problem}</span>
      </p>
    </form>
  );
}

interface RegistrationProps {
  readonly draft: Draft;
  readonly work: SectionWork;
  readonly system: UnitSystem;
  readonly take: <K extends keyof SectionWork>(name: K) => (value: SectionWork[K] | null) => void;
}

/** How a section is registered, how sure one wants to be, and whether the steady drift is keyed in. */
function Registration({ draft, work, system, take }: RegistrationProps) {
  const [usedSdMm, setUsed] = useState<number | null>(null);
  return (
    <fieldset className="mb-2">
      <legend className="h2">How does the machine find where a section lies?</legend>
      {REGISTRATIONS.map((r) => (
        <label key={r.id} className={`choice ${draft.registration === r.id ? 'chosen' : ''}`}>
          <input
            type="radio"
            name="registration"
            checked={draft.registration === r.id}
            onChange={() => {
              take('registration')(r.id);
            }}
          />
          <span>
            <strong>{r.words}</strong>
            <span className="quiet d-block">{r.help}</span>
          </span>
        </label>
      ))}
      <div className="d-flex flex-wrap gap-3 mt-2">
        {draft.registration === 'origin' ? (
          <LengthField
            key={usedSdMm}
            label={'An origin\u2019s own scatter (SD)'}
            system={system}
            initialMm={usedSdMm ?? work.originSdMm}
            onChange={take('originSdMm')}
          />
        ) : (
          <LengthField
            label={'A mark\u2019s scatter (SD)'}
            system={system}
            initialMm={work.markSdMm}
            onChange={take('markSdMm')}
          />
        )}
        {draft.registration === 'start-marks' && (
          <LengthField
            label="Marks apart, along"
            system={system}
            initialMm={work.marksApartMm}
            onChange={take('marksApartMm')}
          />
        )}
        <FigureField
          label="How sure"
          unit="%"
          initial={100 * work.confidence}
          onChange={(percent) => {
            take('confidence')(percent === null ? null : percent / 100);
          }}
        />
        <label className="py-2 align-self-center">
          <input
            type="checkbox"
            className="me-1"
            checked={draft.isCorrected ?? true}
            onChange={(e) => {
              take('isCorrected')(e.target.checked);
            }}
          />
          the steady drift is keyed in, or moved in the cut file
        </label>
      </div>
      {draft.registration === 'origin' && (
        <RewindHelp
          system={system}
          shiftsMm={work.rewindShiftsMm}
          onShifts={(shiftsMm) => {
            take('rewindShiftsMm')([...shiftsMm]);
          }}
          onUse={(sdMm) => {
            setUsed(sdMm);
            take('originSdMm')(sdMm);
          }}
        />
      )}
    </fieldset>
  );
}
