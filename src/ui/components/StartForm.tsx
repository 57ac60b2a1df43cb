'use client';

import { useRouter } from 'next/navigation';
import { useMemo, useState, useTransition } from 'react';
import { BLOCK_NAMES, blockNamed, type BlockName } from '@/core/target/block';
import { defineSheet, type CheckKind } from '@/core/target/sheet-definition';
import type { UnitSystem } from '@/core/units/length';
import { start } from '@/server/actions/calibration';
import { SheetDrawing } from '../sheet/SheetDrawing';
import { LengthField } from './LengthField';

export interface StartView {
  readonly setupId: string;
  readonly page: BlockName;
  readonly toleranceMm: number;
  readonly materials: readonly { readonly id: string; readonly name: string; readonly finish: string }[];
  readonly lastMaterialId: string | null;
  readonly system: UnitSystem;
}

const KINDS: readonly { kind: CheckKind; title: string; words: string }[] = [
  { kind: 'quick', title: 'Quick check', words: 'five spots, ten looks, about 15 minutes' },
  { kind: 'full', title: 'Full check', words: 'nine spots, eighteen looks, tells scale and squareness sharply' },
];

/** Set up: which check, which sheet, what material. The sheet itself shows what will be printed. */
export function StartForm({ view }: { readonly view: StartView }) {
  const router = useRouter();
  const [kind, setKind] = useState<CheckKind>('quick');
  const [blockName, setBlockName] = useState<BlockName>(view.page);
  const [materialId, setMaterialId] = useState(view.lastMaterialId ?? view.materials[0]?.id ?? '');
  const [toleranceMm, setToleranceMm] = useState<number | null>(view.toleranceMm);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => crypto.randomUUID());
  const definition = useMemo(() => defineSheet(blockName, kind), [blockName, kind]);

  const begin = (): void => {
    startTransition(async () => {
      const done = await start({ id, setupId: view.setupId, materialId, blockName, kind, toleranceMm });
      if (done.ok) router.push(`/calibrations/${done.value}/print`);
      else setProblem(done.message);
    });
  };

  return (
    <div className="two">
      <div className="bed stay">
        <SheetDrawing
          definition={definition}
          code=""
          cutSets={[1]}
          label={`Check sheet, ${blockName}, ${kind} check: print in ink, first cut dashed`}
        />
      </div>
      <div>
        <fieldset className="mb-3">
          <legend className="h2">Which check?</legend>
          {KINDS.map((k) => (
            <label key={k.kind} className={`choice ${kind === k.kind ? 'chosen' : ''}`}>
              <input
                type="radio"
                name="kind"
                checked={kind === k.kind}
                onChange={() => {
                  setKind(k.kind);
                }}
              />
              <span>
                <strong>{k.title}</strong>
                <span className="quiet d-block">{k.words}</span>
              </span>
            </label>
          ))}
        </fieldset>
        <fieldset className="mb-3">
          <legend className="h2">On which sheet?</legend>
          <div className="d-flex gap-2">
            {BLOCK_NAMES.map((name) => (
              <label key={name} className={`choice flex-fill ${blockName === name ? 'chosen' : ''}`}>
                <input
                  type="radio"
                  name="block"
                  checked={blockName === name}
                  onChange={() => {
                    setBlockName(name);
                  }}
                />
                <span>
                  <strong>{name}</strong>
                  <span className="quiet d-block figures">{`${blockNamed(name).widthMm} x ${blockNamed(name).lengthMm} mm used`}</span>
                </span>
              </label>
            ))}
          </div>
        </fieldset>
        <label htmlFor="material" className="form-label">
          Material
        </label>
        <select
          id="material"
          className="form-select mb-3"
          value={materialId}
          onChange={(e) => {
            setMaterialId(e.target.value);
          }}
        >
          {view.materials.map((m) => (
            <option key={m.id} value={m.id}>{`${m.name}, ${m.finish}`}</option>
          ))}
        </select>
        <LengthField
          label="Allowed at the worst corner"
          system={view.system}
          initialMm={view.toleranceMm}
          hint="How far the cut may be from the print and still be good work."
          onChange={setToleranceMm}
        />
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy || toleranceMm === null || materialId === ''}
          onClick={begin}
        >
          {isBusy ? 'Making the sheet ...' : 'Make the check sheet'}
        </button>
        <p role="alert" className="mt-2 mb-0">
          {problem}
        </p>
      </div>
    </div>
  );
}
