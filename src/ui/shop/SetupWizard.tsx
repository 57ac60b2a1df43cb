'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { FAMILY_WORDS } from '@/core/shop/decide-route';
import { MARK_KIND_WORDS } from '@/core/shop/mark-kinds';
import { FAMILIES, MARK_KINDS, type Family, type MarkKind } from '@/core/shop/words';
import type { PageChoice } from '@/core/target/block';
import { sheetSize } from '@/core/units/sheet-size';
import { newSetup } from '@/server/actions/shop';
import { PagePicker } from '../components/PagePicker';
import { ChoiceCards } from './ChoiceCards';
import { LastQuestions, type LastAnswers } from './LastQuestions';
import { MarkPicture } from './MarkPicture';
import { programFor, ProgramTaps, type ProgramDraft } from './ProgramTaps';
import type { WizardView } from './wizard-view';

const STEPS = ['How you cut', 'The program', 'The sheet', 'What can be set'] as const;

/** Marks that a family usually has, as a first guess. */
function usualMarks(family: Family): MarkKind {
  if (family === 'F2' || family === 'F7' || family === 'F9') return 'none';
  if (family === 'F8') return 'by_hand';
  return family === 'F1' || family === 'F1c' ? 'corner_figures' : 'four_corners';
}

function firstName(taken: readonly string[]): string {
  const isTaken = (name: string): boolean => taken.some((t) => t.toLowerCase() === name.toLowerCase());
  for (let i = 1; ; i++) {
    const name = i === 1 ? 'First machine' : `Machine ${i}`;
    if (!isTaken(name)) return name;
  }
}

/** A printer + cutter in four questions; everything else has a usual value that can be changed in the shop. */
export function SetupWizard({ view }: { readonly view: WizardView }) {
  const router = useRouter();
  const [step, setStep] = useState(0);
  const [family, setFamily] = useState<Family>('F1');
  const [program, setProgram] = useState<ProgramDraft>(() => programFor('F1'));
  const [page, setPage] = useState<PageChoice>(() => {
    const name = view.system === 'mm' ? 'A4' : 'Letter';
    return { name, ...sheetSize(name) };
  });
  const [markKind, setMarkKind] = useState<MarkKind>('corner_figures');
  const [last, setLast] = useState<LastAnswers>(() => ({
    kitId: 'two-offsets',
    name: firstName(view.takenNames),
    shared: { printerId: '', cutterId: '', programId: '' },
    isSimulated: false,
  }));
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => uuid());

  const chooseFamily = (next: Family): void => {
    setFamily(next);
    setProgram(programFor(next));
    setMarkKind(usualMarks(next));
    setStep(1);
  };
  const make = (): void => {
    startTransition(async () => {
      const { spotInkName, isNone, ...answers } = program;
      const { shared, name, kitId, isSimulated } = last;
      const done = await newSetup({
        id,
        family,
        name,
        printerName: 'My printer',
        cutterName: 'My cutter',
        printerId: shared.printerId || null,
        cutterId: shared.cutterId || null,
        programId: isNone ? null : shared.programId || null,
        program: isNone
          ? null
          : { ...answers, name: 'My program', spotInkName: answers.knowsCutBy === 'spot_ink' ? spotInkName : null },
        fileFormat: isNone ? 'hpgl' : 'none',
        page,
        markKind,
        kitId,
        isSimulated,
      });
      if (done.ok) router.push(`/setups/${done.value}`);
      else setProblem(done.message);
    });
  };

  return (
    <div>
      <ol className="wizard-steps" aria-label="Questions">
        {STEPS.map((label, i) => (
          <li key={label} aria-current={i === step ? 'step' : undefined}>
            <button
              type="button"
              className="btn-plain"
              disabled={i > step}
              onClick={() => {
                setStep(i);
              }}
            >
              {label}
            </button>
          </li>
        ))}
      </ol>
      {step === 0 && (
        <ChoiceCards
          legend="How do you print and cut?"
          name="family"
          value={null}
          onChange={chooseFamily}
          choices={FAMILIES.map((f) => ({ value: f, ...FAMILY_WORDS[f] }))}
        />
      )}
      {step === 1 && (
        <>
          <ProgramTaps draft={program} onChange={setProgram} />
          <Next
            onNext={() => {
              setStep(2);
            }}
          />
        </>
      )}
      {step === 2 && (
        <>
          <PagePicker own={page} page={page} system={view.system} onPage={setPage} />
          <ChoiceCards
            legend="Which marks does the cutter look for?"
            name="marks"
            value={markKind}
            onChange={setMarkKind}
            choices={MARK_KINDS.map((kind) => ({
              value: kind,
              title: MARK_KIND_WORDS[kind].title,
              words: MARK_KIND_WORDS[kind].words,
              picture: <MarkPicture scheme={{ kind, ...MARK_KIND_WORDS[kind] }} page={page} />,
            }))}
          />
          <Next
            onNext={() => {
              setStep(3);
            }}
          />
        </>
      )}
      {step === 3 && (
        <LastQuestions
          view={view}
          hasProgram={!program.isNone}
          last={last}
          onLast={setLast}
          isBusy={isBusy}
          problem={problem}
          onMake={make}
        />
      )}
    </div>
  );
}

function Next({ onNext }: { readonly onNext: () => void }) {
  return (
    <button type="button" className="btn btn-primary" onClick={onNext}>
      Go on
    </button>
  );
}
