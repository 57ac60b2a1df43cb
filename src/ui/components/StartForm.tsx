'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useMemo, useState, useTransition } from 'react';
import { layOutBlock, type MarkSpace, type PageChoice } from '@/core/target/block';
import { styleFor, type CutLine } from '@/core/shop/cut-lines';
import type { CheckKind } from '@/core/target/cells';
import { checkKindsOf, defineSheet, stylesOf, type FigureStyle } from '@/core/target/sheet-definition';
import type { ReadingScale } from '@/core/target/reading-scale';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { start } from '@/server/actions/calibration';
import { SheetDrawing } from '../sheet/SheetDrawing';
import { CutLinePicker } from './CutLinePicker';
import { LengthField } from './LengthField';
import { MaterialPicker, type MaterialChoice } from './MaterialPicker';
import { PagePicker } from './PagePicker';
import { ScalePicker } from './ScalePicker';

export interface StartView {
  readonly setupId: string;
  readonly page: PageChoice;
  readonly marks: MarkSpace;
  readonly style: FigureStyle;
  readonly sets: 1 | 2;
  readonly toleranceMm: number;
  readonly materials: readonly MaterialChoice[];
  readonly lastMaterialId: string | null;
  readonly system: UnitSystem;
}

const TITLES: Readonly<Record<CheckKind, string>> = { quick: 'Quick check', full: 'Full check' };
const COUNT = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'] as const;

/** What a check takes: so many spots, two looks at each wedge pair, one at a disc. */
function kindWords(kind: CheckKind, spots: number, style: FigureStyle): string {
  const looks = style === 'lift-off' ? `${spots} discs` : `${2 * spots} looks`;
  const rest = kind === 'quick' ? 'about 15 minutes' : 'tells scale and squareness sharply';
  return `${COUNT[spots] ?? spots} spots, ${looks}, ${rest}`;
}

interface Wanted {
  readonly page: PageChoice;
  readonly kind: CheckKind;
  readonly cutLine: CutLine;
  readonly scale: ReadingScale;
}

/** What a page offers with the marks it must leave room for, and the sheet as chosen. */
function offerOf(view: StartView, { page, kind, cutLine, scale }: Wanted) {
  const block = layOutBlock(page, view.marks);
  if (!block.ok)
    return { block, kinds: [], checkKind: kind, style: view.style, definition: null, isCombOffered: false };
  const offered = stylesOf(block.value);
  const wanted = styleFor(cutLine, view.style);
  const style = offered.includes(wanted) ? wanted : view.style;
  const kinds = checkKindsOf(block.value, style);
  const checkKind = kinds.includes(kind) ? kind : 'quick';
  const definition = defineSheet({ block: block.value, checkKind, style, sets: view.sets, scale });
  return { block, kinds, checkKind, style, definition, isCombOffered: offered.includes('comb') };
}

interface Choices {
  readonly kind: CheckKind;
  readonly page: PageChoice;
  readonly materialId: string;
  readonly toleranceMm: number | null;
  /** Null: what suits the material. */
  readonly cutLine: CutLine | null;
  readonly scale: ReadingScale;
}

const firstChoices = ({ page, lastMaterialId, materials, toleranceMm, system }: StartView): Choices => ({
  ...{ kind: 'quick', page, toleranceMm, cutLine: null, scale: system === 'mm' ? 'mm' : 'thou' },
  materialId: lastMaterialId ?? materials[0]?.id ?? '',
});

const lineOf = ({ materials }: StartView, { cutLine, materialId }: Choices): CutLine =>
  cutLine ?? materials.find((m) => m.id === materialId)?.cutLine ?? 'weeded';

/** Set up: which check, which sheet, what material. The sheet itself shows what will be printed. */
export function StartForm({ view }: { readonly view: StartView }) {
  const router = useRouter();
  const [choices, setChoices] = useState(() => firstChoices(view));
  const take = (some: Partial<Choices>): void => {
    setChoices((now) => ({ ...now, ...some }));
  };
  const { kind, page, materialId, toleranceMm, scale } = choices;
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => uuid());
  const cutLine = lineOf(view, choices);
  const { block, kinds, checkKind, style, definition, isCombOffered } = useMemo(
    () => offerOf(view, { page, kind, cutLine, scale }),
    [view, page, kind, cutLine, scale],
  );

  const begin = (): void => {
    startTransition(async () => {
      const done = await start({
        ...{ id, setupId: view.setupId, materialId, page, kind: checkKind, toleranceMm, scale },
        ...(view.style === 'wedge' ? { cutLine: style === 'comb' ? cutLine : 'weeded' } : {}),
      });
      if (done.ok) router.push(`/calibrations/${done.value}/print`);
      else setProblem(done.message);
    });
  };

  return (
    <div className="two">
      <div className="bed stay">
        {definition ? (
          <SheetDrawing
            definition={definition}
            code=""
            cutSets={[1]}
            label={`Check sheet, ${page.name}, ${checkKind} check: print in ink, first cut dashed`}
          />
        ) : (
          <p>No check sheet fits on this page.</p>
        )}
      </div>
      <div>
        <fieldset className="mb-3">
          <legend className="h2">Which check?</legend>
          {kinds.map((k) => (
            <label key={k} className={`choice ${checkKind === k ? 'chosen' : ''}`}>
              <input
                type="radio"
                name="kind"
                checked={checkKind === k}
                onChange={() => {
                  take({ kind: k });
                }}
              />
              <span>
                <strong>{TITLES[k]}</strong>
                <span className="quiet d-block">
                  {block.ok &&
                    kindWords(k, defineSheet({ block: block.value, checkKind: k, style }).spots.length, style)}
                </span>
              </span>
            </label>
          ))}
        </fieldset>
        <PagePicker
          own={view.page}
          page={page}
          system={view.system}
          onPage={(chosen) => {
            take({ page: chosen });
          }}
        />
        {!block.ok && (
          <p role="alert" className="notice">
            {`Too small with these marks: at least ${formatSize(block.error.neededWidthMm, view.system)} by ${formatSize(block.error.neededLengthMm, view.system)}.`}
          </p>
        )}
        {view.style === 'wedge' && (
          <CutLinePicker
            chosen={cutLine}
            isCombOffered={isCombOffered}
            onChoose={(line) => {
              take({ cutLine: line });
            }}
          />
        )}
        {style !== 'lift-off' && (
          <ScalePicker
            scale={scale}
            onChoose={(unit) => {
              take({ scale: unit });
            }}
          />
        )}
        <MaterialPicker
          label="Material"
          materials={view.materials}
          chosenId={materialId}
          onChoose={(chosenId) => {
            take({ materialId: chosenId });
          }}
        />
        <LengthField
          label="Limit of this check"
          system={view.system}
          initialMm={view.toleranceMm}
          hint={`At most ${formatSize(view.toleranceMm, view.system)}. Type less for finer work.`}
          onChange={(mm) => {
            take({ toleranceMm: mm });
          }}
        />
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy || !definition || toleranceMm === null || materialId === ''}
          onClick={begin}
        >
          {isBusy ? 'Making the sheet ...' : 'Make the check sheet'}
        </button>
        <p role="alert" className="mt-2 mb-0">
          {problem}
        </p>
      </div>
    </div>
  );
}
