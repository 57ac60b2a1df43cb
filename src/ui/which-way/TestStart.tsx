'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import type { PageChoice } from '@/core/target/block';
import { start } from '@/server/actions/calibration';
import { MaterialPicker, type MaterialChoice } from '../components/MaterialPicker';

interface Props {
  readonly setupId: string;
  readonly materials: readonly MaterialChoice[];
  /** The material that was used last here. */
  readonly lastMaterialId: string | null;
  readonly page: PageChoice;
  readonly toleranceMm: number;
  readonly kind: 'which_way' | 'two_faces';
  readonly words: string;
  /** What it takes. */
  readonly takes: string;
  /** The one thing to do on its page. */
  readonly isMain?: boolean;
}

/** Starts a test that one sheet answers: which way a setting goes, how the back lies against the front. */
export function TestStart({
  setupId,
  materials,
  lastMaterialId,
  page,
  toleranceMm,
  kind,
  words,
  takes,
  isMain = false,
}: Props) {
  const router = useRouter();
  const [materialId, setMaterialId] = useState(lastMaterialId ?? materials[0]?.id ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => uuid());
  return (
    <div className="mb-3">
      {materials.length > 1 && (
        <MaterialPicker
          label="Material of this test"
          materials={materials}
          chosenId={materialId}
          onChoose={setMaterialId}
        />
      )}
      <button
        type="button"
        className={`btn ${isMain ? 'btn-primary' : 'btn-quiet'}`}
        disabled={isBusy || materialId === ''}
        onClick={() => {
          startTransition(async () => {
            const done = await start({ id, setupId, materialId, page, kind, toleranceMm });
            if (done.ok) router.push(`/calibrations/${done.value}/print`);
            else setProblem(done.message);
          });
        }}
      >
        {words}
      </button>
      <span className="quiet d-block">{takes}</span>
      <span role="alert">{problem}</span>
    </div>
  );
}
