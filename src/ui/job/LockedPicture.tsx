'use client';

import { useMemo } from 'react';
import type { JobDraft } from '@/core/layout/job-draft';
import type { Placement } from '@/core/layout/fill-page';
import type { Rollers } from '@/core/layout/rollers';
import type { Box } from '@/core/target/block';
import type { UnitSystem } from '@/core/units/length';
import type { DrawnItem } from './LayoutCopies';
import { LayoutPicture } from './LayoutPicture';
import { picturesOf, useItems, viewsOf } from './use-items';

interface Props {
  readonly jobId: string;
  readonly draft: JobDraft;
  /** Everything as it was locked. */
  readonly shown: {
    readonly page: { readonly widthMm: number; readonly lengthMm: number };
    readonly placements: readonly Placement[];
    readonly markBoxes: readonly Box[];
    readonly items: Readonly<Record<string, Pick<DrawnItem, 'artBox' | 'cutPath' | 'scorePath'>>>;
  };
  readonly rollers: Rollers | null;
  readonly hasOwnMarks: boolean;
  readonly leadingWords: string;
  readonly system: UnitSystem;
}

/**
 * A locked layout as it lies when it is loaded: which end leads, where the marks, the rollers and the spare are. Places, marks
 * and lines are those that were locked; only the art is drawn anew, from its own file.
 */
export function LockedPicture({ jobId, draft, shown, rollers, hasOwnMarks, leadingWords, system }: Props) {
  const { states } = useItems(jobId, draft);
  const views = useMemo(() => {
    const art = viewsOf(states, draft);
    return Object.fromEntries(
      Object.entries(shown.items).map(([id, own]) => [id, { id, shapes: art[id]?.shapes ?? [], ...own }]),
    );
  }, [states, draft, shown]);
  const { widthMm, lengthMm } = shown.page;
  const whole = { left: 0, bottom: 0, width: widthMm, height: lengthMm };
  return (
    <LayoutPicture
      page={shown.page}
      area={{ printable: whole, usable: null, marks: shown.markBoxes, keepOuts: [] }}
      placements={shown.placements}
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
