'use client';

import { v4 as uuid } from 'uuid';
import { useDeferredValue, useMemo, useState } from 'react';
import type { JobDraft, JobItem } from '@/core/layout/job-draft';
import { layOut, pageOf } from '@/core/layout/lay-out';
import { layoutHeadline, layoutProblemWords } from '@/core/layout/layout-words';
import { pageArea, usableMm2 } from '@/core/layout/page-area';
import type { ItemView } from '@/workers/layout.client';
import { moneyUnit } from '../components/money';
import { FigureField } from '../components/FigureField';
import { PageHeading } from '../components/PageHeading';
import { EdgePanel } from './EdgePanel';
import { FindingList } from './FindingList';
import { InsetGain } from './InsetGain';
import { ItemForm } from './ItemForm';
import { JobHead } from './JobHead';
import { numberedFindings } from './job-findings';
import type { JobEditorView, Kept } from './job-view';
import { LayoutPicture } from './LayoutPicture';
import { LockBar } from './LockBar';
import { OwnArtForm } from './OwnArtForm';
import { PageForm } from './PageForm';
import { SmallDiscs } from './SmallDiscs';
import { useDraft } from './use-draft';
import { edgeInUse, useEdge } from './use-edge';
import { picturesOf, useItems, viewsOf } from './use-items';
import { useRested } from './use-rested';

const newItem = (no: number): JobItem => ({
  id: uuid(),
  name: `Item ${no}`,
  quantity: 10,
  widthMm: 50,
  lengthMm: 50,
  mayTurn: true,
  art: { kind: 'plain', shape: 'rectangle', cornerMm: 0 },
});

interface Changing extends Kept {
  /** The corner of the inset is in a hand just now. */
  readonly isHeld: boolean;
}

/**
 * The layout that follows from a draft, worked out again at every change. The page and what of it can be used follow at
 * once; copies and findings a moment later where there are many, and while a corner is dragged only when it rests: many
 * copies take longer to paint than a frame lasts.
 */
function useLayout(view: JobEditorView, now: Changing, views: Readonly<Record<string, ItemView>>) {
  const { draft, materialId } = now;
  const later = useDeferredValue(useRested(draft, now.isHeld));
  const { cells, laid, findings } = useMemo(() => {
    const known = new Map(Object.values(views).map((v) => [v.id, v.cell]));
    const found = layOut(later, view.page, known);
    const printableWidthMm = view.materials.find((m) => m.id === materialId)?.printableWidthMm ?? null;
    const facts = { ...view.layout, printableWidthMm };
    const toLookAt = found.ok ? numberedFindings(later, found.value, facts, views) : [];
    return { cells: known, laid: found, findings: toLookAt };
  }, [view, later, materialId, views]);
  const { page, area } = useMemo(() => {
    const asked = pageOf(draft, view.page);
    const own = laid.ok && draft.form === 'roll' ? { ...asked, lengthMm: laid.value.page.lengthMm } : asked;
    return { page: own, area: pageArea(own) };
  }, [view, draft, laid]);
  return { cells, laid, page, area, findings };
}

const areaWords = (mm2: number, whole: number): string =>
  `${(mm2 / 100).toFixed(0)} cm\u00b2 usable, ${Math.round((100 * mm2) / whole)} % of the page`;

/** A job while it is being laid out: the page large, beside it what makes it. */
export function JobEditor({ view }: { readonly view: JobEditorView }) {
  const { jobId, system, page: facts } = view;
  const keeper = useDraft(view);
  const { draft, materialId } = keeper.kept;
  const items = useItems(jobId, draft);
  const views = useMemo(() => viewsOf(items.states, draft), [items.states, draft]);
  const [isHeld, setHeld] = useState(false);
  const { cells, laid, page, area, findings } = useLayout(view, { ...keeper.kept, isHeld }, views);
  const [moved, setMoved] = useState(0);
  const answer = useEdge({ view, draft, materialId, laid: laid.ok ? laid.value : null, views }, items.worker);
  const change = (next: Partial<JobDraft>): void => {
    keeper.change((now) => ({ draft: { ...now.draft, ...next } }));
  };
  const changeItems = (next: (items: readonly JobItem[]) => readonly JobItem[]): void => {
    keeper.change((now) => ({ draft: { ...now.draft, items: next(now.draft.items) } }));
  };
  const setInset = (insetMm: number): void => {
    change({ insetMm });
    setMoved((n) => n + 1);
  };
  const isHere = draft.laysOut === 'here';
  return (
    <>
      <PageHeading>{laid.ok ? layoutHeadline(draft, laid.value) : layoutProblemWords(laid.error, draft)}</PageHeading>
      <JobHead key={`head ${keeper.restored}`} view={view} keeper={keeper} />
      <div className="two" key={keeper.restored}>
        <div className="bed stay">
          <LayoutPicture
            page={page}
            area={area}
            placements={laid.ok ? laid.value.placements : []}
            views={views}
            pictures={picturesOf(jobId, draft)}
            isMirrored={draft.isMirrored}
            hasOwnMarks={view.hasOwnMarks}
            spare={draft.form === 'roll' ? { frontMm: draft.spareFrontMm, rearMm: draft.spareRearMm } : null}
            rollers={view.layout.rollers}
            leadingWords={view.leadingMark ? `${view.leadingMark}, this end first` : 'this end first'}
            flags={findings.flatMap(({ no, boxes }) => boxes.slice(0, 12).map((box) => ({ no, box })))}
            system={system}
            inset={
              view.page.marks.kind === 'none'
                ? undefined
                : { insetMm: page.marks.insetMm, isHeld, onHeld: setHeld, onInset: setInset }
            }
          />
          <p className="quiet mb-0" data-testid="usable">
            {areaWords(usableMm2(area), page.widthMm * page.lengthMm)}
          </p>
        </div>
        <div>
          {isHere ? (
            <section aria-label="What is made">
              <h2>What is made</h2>
              {draft.items.map((item) => (
                <ItemForm
                  key={item.id}
                  jobId={jobId}
                  item={item}
                  state={items.states[item.id]}
                  survey={item.art.kind === 'drawing' ? items.surveys[item.art.fileId] : undefined}
                  system={system}
                  naturalSize={items.naturalSize}
                  onChange={(next) => {
                    changeItems((all) => all.map((i) => (i.id === item.id ? { ...i, ...next } : i)));
                  }}
                  onRemove={() => {
                    changeItems((all) => all.filter((i) => i.id !== item.id));
                  }}
                  onCancel={items.cancel}
                />
              ))}
              <button
                type="button"
                className={`btn ${draft.items.length === 0 ? 'btn-primary' : 'btn-quiet'}`}
                onClick={() => {
                  changeItems((all) => [...all, newItem(all.length + 1)]);
                }}
              >
                {draft.items.length === 0 ? 'Add what is made' : 'Add another'}
              </button>{' '}
              <SmallDiscs
                jobId={jobId}
                setupId={view.setupId}
                isFirst={draft.items.length === 0}
                naturalSize={items.naturalSize}
                onAdd={(added) => {
                  changeItems((all) => [...all, ...added]);
                }}
              />
            </section>
          ) : (
            <OwnArtForm draft={draft} system={system} onChange={change} />
          )}
          <PageForm view={view} draft={draft} system={system} moved={moved} onChange={change} />
          <InsetGain draft={draft} page={facts} cells={cells} system={system} onInset={setInset} />
          <EdgePanel
            draft={draft}
            system={system}
            edgeMm={edgeInUse(draft, views)}
            answer={answer}
            known={view.error}
            onChange={change}
          />
          <FigureField
            label="What the whole job is worth"
            unit={moneyUnit(view.currency)}
            {...(typeof draft.worth === 'number' && { initial: draft.worth })}
            onChange={(worth) => {
              change({ worth });
            }}
          />
          <FindingList findings={findings} />
          <LockBar
            jobId={jobId}
            isOwnProgram={!isHere}
            stops={findings.filter((f) => f.severity === 'stop').length}
            looks={findings.filter((f) => f.severity === 'look').length}
            isReady={laid.ok && laid.value.placements.length > 0}
            worker={items.worker}
            send={keeper.send}
          />
        </div>
      </div>
    </>
  );
}
