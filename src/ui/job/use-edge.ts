'use client';

import { useEffect, useRef, useState } from 'react';
import { jobErrorOn, piecesOn } from '@/core/budget/job-error';
import type { LaidOut } from '@/core/layout/lay-out';
import type { EdgeAnswer, ItemView, LayoutWorker } from '@/workers/layout.client';
import type { JobEditorView } from './job-view';

/** The narrowest edge among a job's items: what was asked for, or what a drawing's own lines have. */
export function edgeInUse(draft: JobEditorView['draft'], views: Readonly<Record<string, ItemView>>): number {
  const asked = draft.edge.kind === 'none' ? 0 : draft.edge.mm;
  const edges = draft.items.map((item) => {
    const own = views[item.id]?.ownEdgeMm;
    const isOwn = item.art.kind === 'drawing' && item.art.cutFrom === 'lines';
    return isOwn ? Math.abs(own ?? 0) : asked;
  });
  return edges.length > 0 ? Math.min(...edges) : asked;
}

interface Question {
  readonly view: JobEditorView;
  readonly draft: JobEditorView['draft'];
  readonly materialId: string;
  readonly laid: LaidOut | null;
  readonly views: Readonly<Record<string, ItemView>>;
}

/** What the next job's error means for this layout's edge, from the worker; null while nothing is known. */
export function useEdge(question: Question, worker: () => LayoutWorker): EdgeAnswer | null {
  const { view, draft, materialId, laid, views } = question;
  const [answer, setAnswer] = useState<EdgeAnswer | null>(null);
  const asked = useRef('');
  const edgeMm = edgeInUse(draft, views);
  useEffect(() => {
    if (!view.error || !laid || laid.placements.length === 0) return;
    const thermalPerK = view.materials.find((m) => m.id === materialId)?.thermalPerK ?? null;
    const error = jobErrorOn(view.error, laid.page, { thermalPerK, warmingK: draft.warmingK });
    const pieces = piecesOn(laid.placements, laid.page, (id) => views[id]?.isRound ?? true);
    const next = { error, pieces, edgeMm, yieldShare: draft.yieldShare };
    const key = JSON.stringify([
      edgeMm,
      draft.yieldShare,
      draft.warmingK,
      materialId,
      laid.page,
      pieces.length,
      pieces[0],
    ]);
    if (asked.current === key) return;
    asked.current = key;
    // While a corner is dragged only the last question is worth an answer.
    const timer = window.setTimeout(() => {
      void worker()
        .edge(next)
        .then((found) => {
          if (asked.current === key) setAnswer(found);
        });
    }, 150);
    return () => {
      window.clearTimeout(timer);
      if (asked.current === key) asked.current = '';
    };
  }, [view, draft, materialId, laid, views, edgeMm, worker]);
  return view.error && laid && laid.placements.length > 0 ? answer : null;
}
