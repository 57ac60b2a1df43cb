import { itemFindingWords, type FindingWords } from '@/core/artwork/item-finding';
import { boxOnPage } from '@/core/layout/cell-place';
import type { JobDraft } from '@/core/layout/job-draft';
import type { LaidOut } from '@/core/layout/lay-out';
import { layoutFindings, type LayoutFacts } from '@/core/layout/layout-findings';
import type { Box } from '@/core/target/block';
import type { ItemView } from '@/workers/layout.client';

/** One thing to look at, with its number and where it stands on the page. */
export interface NumberedFinding extends FindingWords {
  readonly no: number;
  /** Of which item; none where it is of the whole layout. */
  readonly itemName: string | null;
  readonly boxes: readonly Box[];
}

/** Everything to look at, what stops it first, each shown at the first copy that has it. */
export function numberedFindings(
  draft: JobDraft,
  laid: LaidOut,
  facts: LayoutFacts,
  views: Readonly<Record<string, ItemView>>,
): readonly NumberedFinding[] {
  const ofLayout = layoutFindings(draft, laid, facts).map((f) => ({ ...f, itemName: null }));
  const ofItems = draft.items.flatMap((item) => {
    const placement = laid.placements.find((p) => p.itemId === item.id);
    return (views[item.id]?.findings ?? []).map((finding) => {
      const inCell = 'box' in finding ? finding.box : null;
      const boxes = placement ? [inCell ? boxOnPage(inCell, placement) : placement.box] : [];
      return { ...itemFindingWords(finding), itemName: item.name, boxes };
    });
  });
  const all = [...ofLayout, ...(draft.laysOut === 'here' ? ofItems : [])];
  return [...all.filter((f) => f.severity === 'stop'), ...all.filter((f) => f.severity === 'look')].map((f, i) => ({
    no: i + 1,
    severity: f.severity,
    words: f.words,
    todo: f.todo,
    itemName: f.itemName,
    boxes: f.boxes,
  }));
}
