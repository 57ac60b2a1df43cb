'use client';

import { v4 as uuid } from 'uuid';
import { useState } from 'react';
import type { JobItem } from '@/core/layout/job-draft';
import {
  TEMPLATE_CUT_COLOUR,
  TEMPLATE_DISC_NOS,
  TEMPLATE_DISC_ROOM_MM,
  type TemplateDiscNo,
} from '@/core/target/template-discs';
import { placeArt } from './place-art';
import type { Items } from './use-items';

interface Props {
  readonly jobId: string;
  readonly setupId: string;
  /** Nothing is made yet beside which they could stand. */
  readonly isFirst: boolean;
  readonly naturalSize: Items['naturalSize'];
  readonly onAdd: (items: readonly JobItem[]) => void;
}

const NOT_THERE = 'The shop\u2019s server does not answer: add the discs again in a moment.';

/** Two small discs for the daily check, put among what is made: one of each on every sheet. */
export function SmallDiscs({ jobId, setupId, isFirst, naturalSize, onAdd }: Props) {
  const [isBusy, setBusy] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const discItem = async (discNo: TemplateDiscNo): Promise<JobItem | string> => {
    const answer = await fetch(`/setups/${setupId}/daily/discs/${discNo}?as=mm`);
    if (!answer.ok) return answer.text();
    const placed = await placeArt(jobId, new File([await answer.blob()], `small-disc-${discNo}.svg`));
    if (typeof placed === 'string') return placed;
    const item: JobItem = {
      ...{ id: uuid(), name: `Small disc ${discNo}`, quantity: 1, mayTurn: false },
      ...{ widthMm: TEMPLATE_DISC_ROOM_MM, lengthMm: TEMPLATE_DISC_ROOM_MM },
      art: {
        ...{ kind: 'drawing', fileId: placed.id, fileName: `small-disc-${discNo}.svg`, cutBy: 'colour' },
        ...{ cutNames: [TEMPLATE_CUT_COLOUR], cutFrom: 'lines', keepsHoles: true },
      },
    };
    return { ...item, ...(await naturalSize(item)) };
  };
  const add = async (): Promise<void> => {
    setBusy(true);
    setTold(null);
    try {
      const made = await Promise.all(TEMPLATE_DISC_NOS.map(discItem));
      const refused = made.find((m) => typeof m === 'string');
      if (refused === undefined) onAdd(made.filter((m) => typeof m !== 'string'));
      else setTold(refused);
    } catch {
      setTold(NOT_THERE);
    }
    setBusy(false);
  };
  if (isFirst) return null;
  return (
    <>
      <button
        type="button"
        className="btn btn-quiet"
        disabled={isBusy}
        onClick={() => {
          void add();
        }}
      >
        {isBusy ? 'Adding the discs \u2026' : 'Add two small discs for the daily check'}
      </button>
      {told && (
        <p role="alert" className="notice">
          {told}
        </p>
      )}
    </>
  );
}
