'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition, type ReactNode } from 'react';
import { loadTurnOf, TURNS, viewTurnOf, type FeedDirection, type Load } from '@/core/geometry/load';
import { cutDone } from '@/server/actions/calibration';
import type { Point } from '@/core/geometry/affine';
import type { Light } from '@/core/shop/light';
import type { SheetDefinition } from '@/core/target/sheet-definition';
import { LightPicker } from '../components/LightPicker';
import { SheetDrawing } from '../sheet/SheetDrawing';
import { Instructions, type InstructionsView } from './Instructions';
import { LoadPicture } from './LoadPicture';
import { MarksNotRead } from './MarksNotRead';

export interface CutView {
  readonly calibrationId: string;
  readonly setNo: number;
  readonly isConfirm: boolean;
  /** The same sheet was cut before: was it unloaded since? */
  readonly asksReload: boolean;
  /** Where a done cut leads. */
  readonly nextHref: string;
  readonly feed: FeedDirection;
  readonly load: Load;
  readonly instructions: InstructionsView;
  readonly isSimulated: boolean;
  readonly tries: readonly { readonly tried: string; readonly outcome: 'read' | 'not_read' }[];
  readonly needsNewSheet: boolean;
  /** The last attempt ended with marks not read. */
  readonly hasMarkTrouble: boolean;
  readonly definition: SheetDefinition;
  readonly code: string;
  /** Light that was told last here; null where no eye looks for marks. */
  readonly light: Light | null;
  readonly marks: { readonly centres: readonly Point[]; readonly isOurs: boolean };
}

type Outcome = 'done' | 'marks_not_read' | 'wrong_place' | 'stopped';

const ANSWERS: readonly { readonly outcome: Outcome; readonly words: string }[] = [
  { outcome: 'done', words: 'Cut done' },
  { outcome: 'marks_not_read', words: 'Marks not read' },
  { outcome: 'wrong_place', words: 'Cut in the wrong place' },
  { outcome: 'stopped', words: 'Stopped' },
];

const AFTER: Readonly<Record<Exclude<Outcome, 'done' | 'marks_not_read'>, string>> = {
  wrong_place:
    'Written down. If the cut lies within 12 mm of its print, answer "Cut done": the rough grids on the sheet will say by how much. If it lies further off, check page size, mark inset and the end that was loaded, and cut again on another sheet.',
  stopped: 'Written down. Clear the machine as its manual says, load again, and cut once more.',
};

/** What follows from an answer that is not a good cut. */
const afterWords = (answer: Outcome | null): string | null =>
  answer === 'wrong_place' || answer === 'stopped' ? AFTER[answer] : null;

interface HowProps {
  readonly question: string;
  readonly isDisabled: boolean;
  readonly told: string | null;
  readonly onTell: (outcome: Outcome) => void;
  readonly children: ReactNode;
}

function HowItWent({ question, isDisabled, told, onTell, children }: HowProps) {
  return (
    <section className="notice" aria-label="How did it go?">
      <h2>{question}</h2>
      {children}
      <p className="d-flex flex-wrap gap-2 mb-0">
        {ANSWERS.map((a) => (
          <button
            key={a.outcome}
            type="button"
            className={`btn ${a.outcome === 'done' ? 'btn-primary' : 'btn-quiet'}`}
            disabled={isDisabled}
            onClick={() => {
              onTell(a.outcome);
            }}
          >
            {a.words}
          </button>
        ))}
      </p>
      <p role="alert" className="mt-2 mb-0">
        {told}
      </p>
    </section>
  );
}

interface ReloadProps {
  /** Null until it is said. */
  readonly isFresh: boolean | null;
  readonly isConfirm: boolean;
  readonly onFresh: (isFresh: boolean) => void;
}

const RELOADED = [
  { isFresh: true, words: 'Yes: unloaded, loaded again, marks read again' },
  { isFresh: false, words: 'No: it still lies as it was' },
] as const;

/** Whether it was loaded again since the cut before: what changes with every load shows only then. Nothing is answered beforehand. */
function Reload({ isFresh, isConfirm, onFresh }: ReloadProps) {
  return (
    <fieldset className="mt-2">
      <legend className="h2">Did you reload the sheet?</legend>
      {RELOADED.map((answer) => (
        <label key={answer.words} className={`choice ${isFresh === answer.isFresh ? 'chosen' : ''}`}>
          <input
            type="radio"
            name="reloaded"
            checked={isFresh === answer.isFresh}
            onChange={() => {
              onFresh(answer.isFresh);
            }}
          />
          <span>{answer.words}</span>
        </label>
      ))}
      {isFresh === false && (
        <p className="quiet">
          {isConfirm
            ? 'Then this checks only that the values were set right. It does not show how the next job will be.'
            : 'Then it is the same load once more. It cannot show what changes with every load.'}
        </p>
      )}
    </fieldset>
  );
}

interface LiesProps {
  readonly load: Load;
  readonly feed: FeedDirection;
  readonly onLoad: (load: Load) => void;
}

/** How the sheet lies in the machine: its turn, and which face is up. */
function HowItLies({ load, feed, onLoad }: LiesProps) {
  const viewTurn = viewTurnOf(load, feed);
  return (
    <>
      <fieldset>
        <legend className="h2">How does the sheet lie, seen from where you stand?</legend>
        <div className="lie">
          {TURNS.map((turn) => {
            const option: Load = { turnDeg: loadTurnOf(turn, feed), face: load.face };
            return (
              <label key={turn} className={`choice ${turn === viewTurn ? 'chosen' : ''}`}>
                <input
                  type="radio"
                  name="turn"
                  checked={turn === viewTurn}
                  onChange={() => {
                    onLoad(option);
                  }}
                  aria-label={TURN_WORDS[turn]}
                />
                <LoadPicture load={option} feed={feed} />
              </label>
            );
          })}
        </div>
      </fieldset>
      <label className="choice mt-2">
        <input
          type="checkbox"
          checked={load.face === 'ink-down'}
          onChange={(e) => {
            onLoad({ ...load, face: e.target.checked ? 'ink-down' : 'ink-up' });
          }}
        />
        <span>The print faces down (seen through the film)</span>
      </label>
    </>
  );
}

/** The cut: how the sheet lies, what to do, and how it went. */
export function CutStep({ view }: { readonly view: CutView }) {
  const router = useRouter();
  const [load, setLoad] = useState<Load>(view.load);
  const [isFreshLoad, setFreshLoad] = useState<boolean | null>(view.asksReload ? null : true);
  const [answer, setAnswer] = useState<Outcome | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [light, setLight] = useState(view.light);
  const [isBusy, startTransition] = useTransition();
  const viewTurn = viewTurnOf(load, view.feed);

  const tell = (outcome: Outcome): void => {
    if (isFreshLoad === null) {
      setProblem('First say whether you reloaded the sheet.');
      return;
    }
    startTransition(async () => {
      const done = await cutDone({
        id: uuid(),
        calibrationId: view.calibrationId,
        turnDeg: load.turnDeg,
        face: load.face,
        outcome,
        isFreshLoad,
        ...(light !== null && { light }),
      });
      setProblem(done.ok ? null : done.message);
      if (done.ok) setAnswer(outcome);
      if (done.ok && outcome === 'done') router.push(view.nextHref);
    });
  };

  const query = `?turn=${load.turnDeg}&face=${load.face}`;
  const files = view.instructions.files.map((f) => ({ ...f, href: f.href + query }));
  return (
    <div className="two">
      <div>
        <HowItLies load={load} feed={view.feed} onLoad={setLoad} />
        {view.asksReload && <Reload isFresh={isFreshLoad} isConfirm={view.isConfirm} onFresh={setFreshLoad} />}
        {load.face === 'ink-up' && (
          <div className="bed mt-2">
            <SheetDrawing
              definition={view.definition}
              code={view.code}
              turnDeg={viewTurn}
              cutSets={[view.setNo === 1 ? 1 : 2]}
              marks={view.marks}
              label={`The sheet as it lies, with the lines of cut ${view.setNo} dashed`}
            />
          </div>
        )}
      </div>
      <div>
        <Instructions view={{ ...view.instructions, files }} />
        <HowItWent
          question={view.isSimulated ? 'The stand-in cutter takes the files above. How did it go?' : 'How did it go?'}
          isDisabled={isBusy || view.needsNewSheet}
          told={problem ?? afterWords(answer)}
          onTell={tell}
        >
          {light !== null && <LightPicker light={light} onLight={setLight} />}
        </HowItWent>
        {(answer === 'marks_not_read' || view.hasMarkTrouble) && (
          <MarksNotRead calibrationId={view.calibrationId} tries={view.tries} />
        )}
      </div>
    </div>
  );
}

const TURN_WORDS = {
  0: 'arrow away from you',
  90: 'arrow to the left',
  180: 'arrow towards you',
  270: 'arrow to the right',
} as const;
