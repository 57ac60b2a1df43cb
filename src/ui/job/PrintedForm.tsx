'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { jobPrinted } from '@/server/actions/job';
import { FigureField } from '../components/FigureField';

interface Props {
  readonly jobId: string;
  readonly sheets: number;
  readonly form: 'sheet' | 'roll';
}

/** It came out of the printer: how many, and how long ago. */
export function PrintedForm({ jobId, sheets: planned, form }: Props) {
  const router = useRouter();
  const [sheets, setSheets] = useState<number | null>(planned);
  const [hoursAgo, setHoursAgo] = useState<number | null>(0);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const isWhole = sheets !== null && Number.isInteger(sheets) && sheets >= 1 && hoursAgo !== null && hoursAgo >= 0;
  return (
    <>
      <div className="d-flex flex-wrap gap-3">
        <FigureField
          label="Printed"
          unit={form === 'roll' ? 'pieces' : 'sheets'}
          initial={planned}
          onChange={setSheets}
        />
        <FigureField label="Hours ago" unit="h" initial={0} onChange={setHoursAgo} />
      </div>
      <button
        type="button"
        className="btn btn-primary"
        disabled={isBusy || !isWhole}
        onClick={() => {
          startTransition(async () => {
            const minutesAgo = (hoursAgo ?? 0) * 60;
            const done = await jobPrinted({ id: uuid(), jobId, sheets, minutesAgo });
            setTold(done.ok ? null : done.message);
            if (done.ok) router.refresh();
          });
        }}
      >
        It is printed
      </button>
      <p role="status">{told ?? (isWhole ? null : 'Type whole sheets, at least 1, and hours from 0.')}</p>
    </>
  );
}
