'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { beginJob } from '@/server/actions/job';

interface Named {
  readonly id: string;
  readonly name: string;
}

interface Props {
  readonly setups: readonly Named[];
  readonly materials: readonly Named[];
  /** The printer + cutter that one came from. */
  readonly setupId: string | null;
}

/** A new job: its name, on what it is made, of what. */
export function JobStart({ setups, materials, setupId: asked }: Props) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [setupId, setSetupId] = useState(asked ?? setups[0]?.id ?? '');
  const [materialId, setMaterialId] = useState(materials[0]?.id ?? '');
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  if (setups.length === 0 || materials.length === 0)
    return <p>Tell the shop its printer, cutter and a material first: then jobs can be laid out.</p>;
  return (
    <form
      className="d-flex flex-wrap gap-3 align-items-end mb-2"
      onSubmit={(event) => {
        event.preventDefault();
        startTransition(async () => {
          const done = await beginJob({ id: uuid(), setupId, materialId, name });
          setTold(done.ok ? null : done.message);
          if (done.ok) router.push(`/jobs/${done.value}`);
        });
      }}
    >
      <div>
        <label className="form-label" htmlFor="new-name">
          What it is called
        </label>
        <input
          id="new-name"
          className="form-control"
          maxLength={80}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
      </div>
      <div>
        <label className="form-label" htmlFor="new-setup">
          Printer + cutter
        </label>
        <select
          id="new-setup"
          className="form-select"
          value={setupId}
          onChange={(event) => {
            setSetupId(event.target.value);
          }}
        >
          {setups.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </select>
      </div>
      <div>
        <label className="form-label" htmlFor="new-material">
          Material
        </label>
        <select
          id="new-material"
          className="form-select"
          value={materialId}
          onChange={(event) => {
            setMaterialId(event.target.value);
          }}
        >
          {materials.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}
            </option>
          ))}
        </select>
      </div>
      <button type="submit" className="btn btn-primary" disabled={isBusy || name.trim() === ''}>
        Lay it out
      </button>
      <p role="status" className="w-100 mb-0">
        {told}
      </p>
    </form>
  );
}
