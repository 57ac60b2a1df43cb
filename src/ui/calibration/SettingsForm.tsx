'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { Way } from '@/contracts/inputs';
import { correctionSet } from '@/server/actions/calibration';
import { TypedBack, typedNumbers, type ChangeView } from './TypedBack';

interface Props {
  readonly calibrationId: string;
  /** Readings that look odd are counted too, as chosen on the map. */
  readonly keepAll: boolean;
  readonly changes: readonly ChangeView[];
  /** What must be set back whatever way is taken: moved since the cut, with a direction that nobody knows. */
  readonly setBackFirst: readonly ChangeView[];
  readonly afterSettings: string;
  readonly afterFile: string;
  readonly borderWords: string;
  /** Whether settings leave something worth moving in the file. */
  readonly leavesRest: boolean;
  readonly firstWay: Way;
  /** Not where the program traces its own lines. */
  readonly canMoveFile: boolean;
  /** The one thing to do on its page. */
  readonly isMain: boolean;
}

/** The three ways out: settings keyed in and typed back, cut lines moved in the file, a border that hides it. */
export function SettingsForm(props: Props) {
  const { calibrationId, changes } = props;
  const router = useRouter();
  const [way, setWay] = useState<Way>(props.firstWay);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const toSet = way === 'settings' || way === 'settings-and-file' ? changes : props.setBackFirst;
  const numbers = typedNumbers(toSet, typed);
  const needsTyping = toSet.length > 0;
  const isReady = Object.keys(numbers).length === toSet.length;

  const send = (): void => {
    startTransition(async () => {
      const done = await correctionSet({
        id: uuid(),
        calibrationId,
        way,
        keepAll: props.keepAll,
        typed: numbers,
      });
      if (done.ok) router.push(`/calibrations/${calibrationId}/confirm`);
      else setProblem(done.message);
    });
  };

  const ways: readonly { way: Way; title: string; words: string; isOffered: boolean }[] = [
    {
      way: 'settings',
      title: 'Set it on the machine',
      words: `Brings the worst corner to ${props.afterSettings}.`,
      isOffered: changes.length > 0,
    },
    {
      way: 'settings-and-file',
      title: 'Settings, and move the rest in the file',
      words: 'What no setting here reaches: the cut lines of each file are moved for it.',
      isOffered: changes.length > 0 && props.leavesRest && props.canMoveFile,
    },
    {
      way: 'file',
      title: 'Move the cut in the file',
      words: `Nothing is set on the machine; cut lines are moved. Leaves ${props.afterFile}.`,
      isOffered: props.canMoveFile,
    },
    { way: 'none', title: 'Leave it, and hide it', words: props.borderWords, isOffered: true },
  ];

  return (
    <div>
      <fieldset className="mb-3">
        <legend className="h2">Which way?</legend>
        {ways
          .filter((w) => w.isOffered)
          .map((w) => (
            <label key={w.way} className={`choice ${way === w.way ? 'chosen' : ''}`}>
              <input
                type="radio"
                name="way"
                checked={way === w.way}
                onChange={() => {
                  setWay(w.way);
                }}
              />
              <span>
                <strong>{w.title}</strong>
                <span className="d-block quiet">{w.words}</span>
              </span>
            </label>
          ))}
      </fieldset>
      {needsTyping && (
        <>
          <p className="caution">
            Write the old values down first, where they can be read. First run with a new setting: tool up, hand at
            stop. Follow your machine&rsquo;s manual and local rules.
          </p>
          <TypedBack
            changes={toSet}
            typed={typed}
            onTyped={(id, text) => {
              setTyped({ ...typed, [id]: text });
            }}
          />
        </>
      )}
      <button
        type="button"
        className={`btn ${props.isMain ? 'btn-primary' : 'btn-quiet'}`}
        disabled={isBusy || !isReady}
        onClick={send}
      >
        {needsTyping ? 'I have set them' : 'Apply this correction'}
      </button>
      {needsTyping && !isReady && <p className="quiet mt-1">Type each value back as the display shows it.</p>}
      <p role="alert" className="mt-2">
        {problem}
      </p>
    </div>
  );
}
