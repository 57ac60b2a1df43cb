import { fail, ok, type Result } from '../result';
import type { MarkScheme } from '../shop/marks';
import type { Box } from '../target/block';
import type { Placement } from './fill-page';
import { layGang, leftOver, type WantedItem } from './gang';
import type { ArtBox, JobDraft } from './job-draft';
import { pageArea, type LayoutPage, type Margins, type PageArea } from './page-area';
import { layRoll } from './roll-piece';
import type { CellSize } from './rows';

/** What the shop knows of the page and what stands on it. */
export interface PageFacts {
  readonly margins: Margins;
  /** Kind, size and rooms of the marks; the inset is the job's own. */
  readonly marks: MarkScheme;
}

/** A job on its pages: equal ones, all of them. */
export interface LaidOut {
  readonly page: LayoutPage;
  readonly area: PageArea;
  readonly placements: readonly Placement[];
  readonly sheets: number;
  readonly left: ReturnType<typeof leftOver>;
}

export type LayoutProblem =
  | { readonly kind: 'nothing-to-place' }
  | { readonly kind: 'no-area' }
  | { readonly kind: 'does-not-fit'; readonly itemId: string };

/** The page that a draft asks for, with the job's own inset. */
export function pageOf(draft: Pick<JobDraft, 'page' | 'insetMm'>, { margins, marks }: PageFacts): LayoutPage {
  const { widthMm, lengthMm } = draft.page;
  return { widthMm, lengthMm, margins, marks: { ...marks, insetMm: draft.insetMm } };
}

/** Box of a program's own art: its upper left corner is told from the page's upper left. */
export const artBoxOn = (art: ArtBox, page: Pick<LayoutPage, 'lengthMm'>): Box => ({
  left: art.leftMm,
  bottom: page.lengthMm - art.topMm - art.lengthMm,
  width: art.widthMm,
  height: art.lengthMm,
});

/**
 * Lays a draft's items on its pages, or on pieces of its roll. Where a program lays it out, its one box of art is what stands
 * on the page. @param cells each item's size with its cut line, by id.
 */
export function layOut(
  draft: JobDraft,
  facts: PageFacts,
  cells: ReadonlyMap<string, CellSize>,
): Result<LaidOut, LayoutProblem> {
  const page = pageOf(draft, facts);
  const area = pageArea(page);
  if (!area.usable) return fail({ kind: 'no-area' });
  if (draft.laysOut === 'program') {
    const { artBox } = draft;
    const placements: readonly Placement[] = artBox ? [{ itemId: 'art', box: artBoxOn(artBox, page), turnDeg: 0 }] : [];
    return ok({ page, area, placements, sheets: 1, left: [] });
  }
  const items = draft.items.flatMap(({ id, quantity, mayTurn }): WantedItem[] => {
    const cell = cells.get(id);
    return cell ? [{ id, quantity, mayTurn, cell }] : [];
  });
  if (items.length === 0) return fail({ kind: 'nothing-to-place' });
  if (draft.form === 'roll') {
    const pieces = layRoll(page, items, draft.gapMm);
    if ('kind' in pieces) return fail(pieces);
    const piece = { ...page, lengthMm: pieces.lengthMm };
    const { sheets, placements } = pieces.gang;
    return ok({ page: piece, area: pageArea(piece), placements, sheets, left: leftOver(pieces.gang, items) });
  }
  const gang = layGang(area, items, draft.gapMm);
  if ('kind' in gang) return fail(gang);
  return ok({ page, area, placements: gang.placements, sheets: gang.sheets, left: leftOver(gang, items) });
}
