'use client';

import { useState } from 'react';
import { isLadder, type Ladder, type OwnTest } from '@/core/reading/ladder';
import { ownTestKept } from '@/server/actions/shop';
import type { MeasureToolView } from './measure-view';
import { OwnTestRow } from './OwnTestRow';

/** A row as it may look, until this machine's is described. */
const USUAL: Ladder = { labels: 'numbers', firstNumber: 1, lines: 15, middle: 8, takesHalves: false, stepMm: null };
const UNKNOWN: OwnTest = { across: USUAL, along: USUAL, sheet: 'own' };

const AXES = [
  { axis: 'across', title: 'Sideways' },
  { axis: 'along', title: 'Along the feed' },
] as const;

const SHEETS = [
  { sheet: 'own', words: 'on a sheet that it prints itself' },
  { sheet: 'check-sheet', words: 'on a check sheet that is loaded for it' },
] as const;

/** The answer of a machine's own rows of test lines, as steps and, where the step is known, as lengths. */
export function OwnTestTool({ view }: { readonly view: MeasureToolView }) {
  const [test, setTest] = useState<OwnTest>(view.ownTest ?? UNKNOWN);
  return (
    <div>
      <p>
        Rows of lines or boxes that the machine cuts with stepped shifts. Press the line that looks best; where two
        neighbours look equally good, press both. A row tells one shift along one edge: where scale or turn is wrong
        too, that shift holds nowhere else. A quick check tells them apart.
      </p>
      {AXES.map(({ axis, title }) => (
        <OwnTestRow
          key={axis}
          title={title}
          ladder={test[axis]}
          usual={USUAL}
          system={view.system}
          isDescribed={view.ownTest !== null}
          onChange={(ladder) => {
            setTest({ ...test, [axis]: ladder });
          }}
        />
      ))}
      <fieldset className="mb-3">
        <legend className="form-label">{`${view.cutterName} cuts its lines`}</legend>
        {SHEETS.map(({ sheet, words }) => (
          <div key={sheet} className="d-flex align-items-center gap-2 mb-2">
            <input
              id={`sheet-${sheet}`}
              type="radio"
              name="sheet"
              className="form-check-input flex-shrink-0 m-0"
              checked={test.sheet === sheet}
              onChange={() => {
                setTest({ ...test, sheet });
              }}
            />
            <label htmlFor={`sheet-${sheet}`} className="m-0">
              {words}
            </label>
          </div>
        ))}
      </fieldset>
      <KeepButton view={view} test={test} />
    </div>
  );
}

interface KeepProps {
  readonly view: MeasureToolView;
  readonly test: OwnTest;
}

const canBeKept = ({ across, along }: OwnTest): boolean =>
  [across, along].every((row) => row === null || isLadder(row)) && (across !== null || along !== null);

/** Keeps the labels with the cutter, for everyone. */
function KeepButton({ view, test }: KeepProps) {
  const [told, setTold] = useState<string | null>(null);
  const keep = async (): Promise<void> => {
    try {
      const done = await ownTestKept({ setupId: view.setupId, ownTest: test });
      setTold(done.ok ? `Kept with ${done.value}.` : done.message);
    } catch {
      setTold('The shop\u2019s server does not answer. Keep it again in a moment.');
    }
  };
  return (
    <p className="d-flex gap-3 align-items-center">
      <button type="button" className="btn btn-quiet" disabled={!canBeKept(test)} onClick={() => void keep()}>
        {`Keep this for ${view.cutterName}`}
      </button>
      <span role="status">{told}</span>
    </p>
  );
}
