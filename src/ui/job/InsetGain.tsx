'use client';

import { useMemo, useState } from 'react';
import { ASSUMED_WANDER_SD_MM, bestInset, insetChoices, type InsetChoice } from '@/core/layout/inset-gain';
import type { JobDraft } from '@/core/layout/job-draft';
import { layOut, pageOf, type PageFacts } from '@/core/layout/lay-out';
import type { CellSize } from '@/core/layout/rows';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { LengthField } from '../components/LengthField';
import { shareWords } from './edge-words';

interface Props {
  readonly draft: JobDraft;
  readonly page: PageFacts;
  readonly cells: ReadonlyMap<string, CellSize>;
  readonly system: UnitSystem;
  readonly onInset: (mm: number) => void;
}

/** Insets worth comparing: the printer's white edge, the eye's least, the usual ones, and the one in use. */
function candidates({ insetMm }: JobDraft, { margins, marks }: PageFacts): readonly number[] {
  const white = Math.max(margins.leftMm, margins.rightMm, margins.topMm, margins.bottomMm);
  const all = [white, marks.edgeMinMm, marks.edgeMinMm + 1, marks.edgeMinMm + 2, marks.insetMm, insetMm];
  return [...new Set(all.map((mm) => Math.round(mm * 10) / 10))].filter((mm) => mm > 0).sort((a, b) => a - b);
}

function Row({
  choice,
  isHere,
  isBest,
  system,
  onInset,
}: { readonly choice: InsetChoice; readonly isHere: boolean; readonly isBest: boolean } & Pick<
  Props,
  'system' | 'onInset'
>) {
  return (
    <tr>
      <td>
        <button
          type="button"
          className="btn-plain figures"
          aria-pressed={isHere}
          onClick={() => {
            onInset(choice.insetMm);
          }}
        >
          {formatSize(choice.insetMm, system)}
        </button>
        {isHere ? ' now' : ''}
      </td>
      <td className="figures">{choice.copies}</td>
      <td className="figures">{`${(choice.usableMm2 / 100).toFixed(0)} cm\u00b2`}</td>
      <td>{choice.lostShare >= 0.9995 ? 'all' : shareWords(choice.lostShare < 1e-9 ? 0 : choice.lostShare)}</td>
      <td className="figures">
        {choice.goodCopies.toFixed(1)}
        {isBest ? ' best' : ''}
      </td>
    </tr>
  );
}

/** Insets side by side, against the prints whose marks would fail. */
function Compared({ draft, page, cells, system, onInset }: Props) {
  const [wanderMm, setWanderMm] = useState(ASSUMED_WANDER_SD_MM);
  const choices = useMemo(() => {
    const fill = (insetMm: number) => {
      // One page filled: what the quantity leaves free is free for more.
      const items = draft.items.slice(0, 1).map((item) => ({ ...item, quantity: 1 }));
      const laid = layOut({ ...draft, form: 'sheet', insetMm, items }, page, cells);
      return laid.ok ? laid.value.placements : [];
    };
    return insetChoices(pageOf(draft, page), candidates(draft, page), (p) => fill(p.marks.insetMm), wanderMm);
  }, [draft, page, cells, wanderMm]);
  const best = bestInset(choices);
  return (
    <>
      <div className="table-responsive" role="region" aria-label="Insets compared" tabIndex={0}>
        <table className="plain" style={{ minWidth: '26rem' }}>
          <thead>
            <tr>
              <th>inset</th>
              <th>copies</th>
              <th>usable</th>
              <th>prints lost</th>
              <th>come through</th>
            </tr>
          </thead>
          <tbody>
            {choices.map((choice) => (
              <Row
                key={choice.insetMm}
                choice={choice}
                isHere={Math.abs(choice.insetMm - draft.insetMm) < 0.05}
                isBest={choice === best}
                system={system}
                onInset={onInset}
              />
            ))}
          </tbody>
        </table>
      </div>
      <LengthField
        label="How much a print wanders on its sheet"
        hint="standard deviation; 0.7 mm is assumed"
        system={system}
        initialMm={wanderMm}
        onChange={(mm) => {
          if (mm !== null && mm >= 0) setWanderMm(mm);
        }}
      />
      <p className="quiet">
        A print is lost where the printer cuts a mark off, or where it wanders so that a mark stands nearer to the edge
        than the eye takes.
      </p>
    </>
  );
}

/** What a smaller inset gains, against the prints whose marks would fail; worked out once it is asked for. */
export function InsetGain(props: Props) {
  const [isOpen, setOpen] = useState(false);
  const { page, draft } = props;
  if (page.marks.kind === 'none' || draft.laysOut === 'program' || draft.items.length !== 1) return null;
  return (
    <details
      onToggle={(event) => {
        setOpen(event.currentTarget.open);
      }}
    >
      <summary>Would a smaller inset pay?</summary>
      {isOpen && <Compared {...props} />}
    </details>
  );
}
