'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { PageChoice } from '@/core/target/block';
import type { UnitSystem } from '@/core/units/length';
import { start } from '@/server/actions/calibration';
import { LengthField } from '../components/LengthField';
import { MaterialPicker, type MaterialChoice } from '../components/MaterialPicker';

export interface MarkTestView {
  readonly setupId: string;
  readonly materials: readonly MaterialChoice[];
  /** The material that was used last here. */
  readonly lastMaterialId: string | null;
  readonly page: PageChoice;
  readonly toleranceMm: number;
  readonly system: UnitSystem;
  readonly useWords: string;
  readonly problem: string | null;
  readonly isOurs: boolean;
}

/** Moved in by so much, the marks of the offered sheets keep every figure within reach. */
const USUAL_MOVE_MM = 0.7;

/** What the machine makes of its marks, and the sheet that tells it: printed with the marks alone moved. */
export function MarkUseStart({ view }: { readonly view: MarkTestView }) {
  const router = useRouter();
  const [acrossMm, setAcrossMm] = useState<number | null>(USUAL_MOVE_MM);
  const [alongMm, setAlongMm] = useState<number | null>(USUAL_MOVE_MM);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => uuid());
  const { setupId, materials, page, toleranceMm, isOurs } = view;
  const [materialId, setMaterialId] = useState(view.lastMaterialId ?? materials[0]?.id ?? '');
  const begin = () => {
    startTransition(async () => {
      const marksIn = isOurs ? undefined : { acrossMm: acrossMm ?? 0, alongMm: alongMm ?? 0 };
      const done = await start({ id, setupId, materialId, page, kind: 'mark_use', toleranceMm, marksIn });
      if (done.ok) router.push(`/calibrations/${done.value}/print`);
      else setProblem(done.message);
    });
  };
  return (
    <details className="mb-3">
      <summary>{`What it uses its marks for: ${view.useWords}`}</summary>
      <p>
        A sheet is printed with its marks alone moved, and cut as if they were not. What the cut follows, the machine
        takes from its marks; the rest a calibration has to put right.
      </p>
      {view.problem && <p className="caution">{view.problem}</p>}
      {!view.problem && !isOurs && (
        <div className="d-flex flex-wrap gap-3">
          <LengthField
            label="Marks set further in, across"
            system={view.system}
            initialMm={USUAL_MOVE_MM}
            onChange={setAcrossMm}
          />
          <LengthField
            label="Marks set further in, along"
            system={view.system}
            initialMm={USUAL_MOVE_MM}
            onChange={setAlongMm}
          />
        </div>
      )}
      {!view.problem && (
        <MaterialPicker
          label="Material of this test"
          materials={materials}
          chosenId={materialId}
          onChoose={setMaterialId}
        />
      )}
      {!view.problem && (
        <button type="button" className="btn btn-quiet" disabled={isBusy || materialId === ''} onClick={begin}>
          Find out what it uses its marks for
        </button>
      )}
      <span role="alert" className="d-block">
        {problem}
      </span>
    </details>
  );
}
