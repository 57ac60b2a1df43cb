import type { ComputeLayoutInput } from '@/contracts/jobs';
import { layOut, type LayoutProblem } from '@/core/layout/lay-out';
import { usableMm2 } from '@/core/layout/page-area';
import { fail, ok, type Result } from '@/core/result';
import type { FileProblem } from '@/formats/cut-file/cut-file';
import { readArtwork, type Artwork } from '@/formats/svg/read-artwork';
import { prepareItem } from '@/shapes/prepare-item';
import type { PreparedItem } from '@/shapes/prepared-item';

export type LayoutFailure = LayoutProblem | (FileProblem & { readonly itemId: string });

/** Every item made ready, or the first drawing that is not understood. */
export function prepareAll({
  draft,
  drawings,
}: Pick<ComputeLayoutInput, 'draft' | 'drawings'>): Result<readonly PreparedItem[], LayoutFailure> {
  const prepared: PreparedItem[] = [];
  for (const item of draft.items) {
    let artwork: Artwork | null = null;
    if (item.art.kind === 'drawing') {
      const read = readArtwork(drawings[item.art.fileId] ?? '');
      if (!read.ok) return fail({ ...read.error, itemId: item.id });
      artwork = read.value;
    }
    prepared.push(prepareItem({ item, edge: draft.edge, isMirrored: draft.isMirrored, artwork }));
  }
  return ok(prepared);
}

/** A layout as plain data: pages, places, what is left over, every item's cell, cut lines and findings. */
export function computeLayout(input: ComputeLayoutInput): Result<object, LayoutFailure> {
  const prepared = prepareAll(input);
  if (!prepared.ok) return prepared;
  const cells = new Map(prepared.value.map((p) => [p.id, p.cell]));
  const facts = { margins: input.margins, marks: { ...input.marks, insetMm: input.draft.insetMm } };
  const laid = layOut(input.draft, facts, cells);
  if (!laid.ok) return laid;
  const { page, area, placements, sheets, left } = laid.value;
  return ok({
    page: { widthMm: page.widthMm, lengthMm: page.lengthMm },
    area: { ...area, usableMm2: usableMm2(area) },
    placements,
    sheets,
    left,
    items: prepared.value,
  });
}
