'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { MarksReadInput } from '@/contracts/floor';
import type { Light } from '@/core/shop/light';
import { resultTold } from '@/server/actions/job';
import { moneyUnit } from '../components/money';
import { FigureField } from '../components/FigureField';
import { MarksReadField } from './MarksReadField';

interface Props {
  readonly jobId: string;
  readonly made: number;
  /** Light that was told last; null where no eye looks for marks. */
  readonly light: Light | null;
  readonly currency: string | null;
}

/** How it came out: good, spoiled, what that cost. */
export function ResultForm({ jobId, made, light: before, currency }: Props) {
  const router = useRouter();
  const [good, setGood] = useState<number | null>(made);
  const [spoiled, setSpoiled] = useState<number | null>(0);
  const [cost, setCost] = useState<number | null>(0);
  const [note, setNote] = useState('');
  const [marks, setMarks] = useState<MarksReadInput | null>(null);
  const [light, setLight] = useState<Light>(before ?? 'not_told');
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const isWhole = (n: number | null): boolean => n !== null && Number.isInteger(n) && n >= 0;
  const isRight = isWhole(good) && isWhole(spoiled) && cost !== null && cost >= 0;
  return (
    <section aria-label="How it came out">
      <h2>How did it come out?</h2>
      <div className="d-flex flex-wrap gap-3">
        <FigureField label="Good" unit="pieces" initial={made} onChange={setGood} />
        <FigureField label="Spoiled" unit="pieces" initial={0} onChange={setSpoiled} />
        <FigureField label="What the spoiled ones cost" unit={moneyUnit(currency)} initial={0} onChange={setCost} />
      </div>
      {before !== null && <MarksReadField marks={marks} light={light} onMarks={setMarks} onLight={setLight} />}
      <label className="form-label" htmlFor="result-note">
        Note
      </label>
      <textarea
        id="result-note"
        className="form-control mb-3"
        rows={2}
        maxLength={500}
        value={note}
        onChange={(event) => {
          setNote(event.target.value);
        }}
      />
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy || !isRight}
        onClick={() => {
          startTransition(async () => {
            const done = await resultTold({
              id: uuid(),
              jobId,
              good,
              spoiled,
              spoiledCost: cost,
              note,
              marks: marks && { ...marks, light },
            });
            setTold(done.ok ? 'Kept.' : done.message);
            if (done.ok) router.refresh();
          });
        }}
      >
        Keep the result
      </button>
      <p role="status">{told ?? (isRight ? null : 'Type whole pieces from 0, and a cost from 0.')}</p>
    </section>
  );
}
