'use client';

import { useMemo } from 'react';
import type { JobDraft } from '@/core/layout/job-draft';
import { layOut, type PageFacts } from '@/core/layout/lay-out';
import type { Rollers } from '@/core/layout/rollers';
import type { UnitSystem } from '@/core/units/length';
import { LayoutPicture } from './LayoutPicture';
import { picturesOf, useItems, viewsOf } from './use-items';

interface Props {
  readonly jobId: string;
  readonly draft: JobDraft;
  readonly page: PageFacts;
  readonly rollers: Rollers | null;
  readonly hasOwnMarks: boolean;
  readonly leadingWords: string;
  readonly system: UnitSystem;
}

/** A locked layout as it lies when it is loaded: which end leads, where the marks, the rollers and the spare are. */
export function LockedPicture({ jobId, draft, page: facts, rollers, hasOwnMarks, leadingWords, system }: Props) {
  const items = useItems(jobId, draft);
  const views = useMemo(() => viewsOf(items.states, draft), [items.states, draft]);
  const cells = useMemo(() => new Map(Object.values(views).map((v) => [v.id, v.cell])), [views]);
  const laid = useMemo(() => layOut(draft, facts, cells), [draft, facts, cells]);
  if (!laid.ok) return <p role="status">Drawing the layout ...</p>;
  const { page, area, placements } = laid.value;
  return (
    <LayoutPicture
      page={page}
      area={area}
      placements={placements}
      views={views}
      pictures={picturesOf(jobId, draft)}
      isMirrored={draft.isMirrored}
      hasOwnMarks={hasOwnMarks}
      spare={draft.form === 'roll' ? { frontMm: draft.spareFrontMm, rearMm: draft.spareRearMm } : null}
      rollers={rollers}
      leadingWords={leadingWords}
      flags={[]}
      system={system}
    />
  );
}
