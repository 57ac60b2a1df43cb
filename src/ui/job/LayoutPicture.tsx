'use client';

import { memo } from 'react';
import type { Placement } from '@/core/layout/fill-page';
import type { LayoutPage, PageArea } from '@/core/layout/page-area';
import type { Rollers } from '@/core/layout/rollers';
import { TEST_CUT_MM, TEST_CUT_ROOM_MM } from '@/core/layout/spare';
import type { Box } from '@/core/target/block';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { ItemView } from '@/workers/layout.client';
import { InsetHandle } from './InsetHandle';

/** A place on the page that a finding speaks of. */
export interface Flag {
  readonly no: number;
  readonly box: Box;
}

interface Props {
  readonly page: LayoutPage;
  readonly area: PageArea;
  readonly placements: readonly Placement[];
  readonly views: Readonly<Record<string, ItemView>>;
  /** Pictures by the item's id: where the browser finds them. */
  readonly pictures: Readonly<Record<string, string>>;
  readonly isMirrored: boolean;
  readonly hasOwnMarks: boolean;
  readonly spare: { readonly frontMm: number; readonly rearMm: number } | null;
  readonly rollers: Rollers | null;
  readonly leadingWords: string;
  readonly flags: readonly Flag[];
  readonly system: UnitSystem;
  /** Absent: the inset is not to be moved. */
  readonly onInset?: (mm: number) => void;
}

/** A box of the page as an SVG has it, y down from the page's upper end. */
const rect = (box: Box, lengthMm: number) => ({
  x: box.left,
  y: lengthMm - box.bottom - box.height,
  width: box.width,
  height: box.height,
});

interface ItemProps {
  readonly view: ItemView;
  readonly picture: string | undefined;
  readonly isMirrored: boolean;
  /** Of a thin line, in mm. */
  readonly hair: number;
}

/** One item in its own cell, y up: art as it is printed, the cut dashed. Drawn anew only when the item itself changes. */
const ItemDrawing = memo(function ItemDrawing({ view, picture, isMirrored, hair }: ItemProps) {
  const { artBox } = view;
  return (
    <g id={`item-${view.id}`}>
      {view.shapes.length === 0 && !picture && (
        <rect
          x={artBox.left}
          y={artBox.bottom}
          width={artBox.width}
          height={artBox.height}
          fill="var(--ink)"
          opacity={0.12}
        />
      )}
      {picture && (
        <image
          href={picture}
          width={1}
          height={1}
          preserveAspectRatio="none"
          transform={
            isMirrored
              ? `translate(${artBox.left + artBox.width} ${artBox.bottom + artBox.height}) scale(${-artBox.width} ${-artBox.height})`
              : `translate(${artBox.left} ${artBox.bottom + artBox.height}) scale(${artBox.width} ${-artBox.height})`
          }
        />
      )}
      {view.shapes.map((s, i) => (
        <path
          key={i}
          d={s.path}
          fill={s.fill ?? 'none'}
          fillRule={s.isEvenOdd ? 'evenodd' : 'nonzero'}
          stroke={s.stroke?.colour}
          strokeWidth={s.stroke?.widthMm}
        />
      ))}
      <path
        d={view.cutPath}
        fill="none"
        stroke="var(--plumb)"
        strokeWidth={1.6 * hair}
        strokeDasharray={`${8 * hair} ${5 * hair}`}
      />
    </g>
  );
});

const place = ({ box, turnDeg }: Placement): string =>
  turnDeg === 0
    ? `translate(${box.left} ${box.bottom})`
    : `translate(${box.left + box.width} ${box.bottom}) rotate(90)`;

/** Material before and after the print, with the test cut that the front is for. */
function Spare({ page, spare, hair }: Pick<Props, 'page' | 'spare'> & { readonly hair: number }) {
  if (!spare) return null;
  const { widthMm, lengthMm } = page;
  const hasTest = spare.frontMm >= TEST_CUT_MM + 2 * TEST_CUT_ROOM_MM;
  return (
    <g>
      <rect
        x={0}
        y={-spare.frontMm}
        width={widthMm}
        height={spare.frontMm}
        fill="var(--sheet)"
        stroke="var(--rule)"
        strokeWidth={hair}
      />
      <rect
        x={0}
        y={lengthMm}
        width={widthMm}
        height={spare.rearMm}
        fill="var(--sheet)"
        stroke="var(--rule)"
        strokeWidth={hair}
      />
      {hasTest && (
        <rect
          x={widthMm / 2 - TEST_CUT_MM / 2}
          y={-TEST_CUT_ROOM_MM - TEST_CUT_MM}
          width={TEST_CUT_MM}
          height={TEST_CUT_MM}
          fill="none"
          stroke="var(--plumb)"
          strokeWidth={1.6 * hair}
          strokeDasharray={`${5 * hair} ${3 * hair}`}
        />
      )}
    </g>
  );
}

function RollerBars({ page, rollers }: Pick<Props, 'page' | 'rollers'>) {
  if (!rollers) return null;
  const { fromEdgeMm, widthMm } = rollers;
  return (
    <g fill="var(--ink-2)" opacity={0.22}>
      <rect x={fromEdgeMm} y={0} width={widthMm} height={page.lengthMm} />
      <rect x={page.widthMm - fromEdgeMm - widthMm} y={0} width={widthMm} height={page.lengthMm} />
    </g>
  );
}

/** Room of the marks, the marks, the printer's limit and what is left for work. */
function Zones({
  page,
  area,
  hasOwnMarks,
  hair,
}: Pick<Props, 'page' | 'area' | 'hasOwnMarks'> & { readonly hair: number }) {
  const { lengthMm } = page;
  return (
    <g>
      {area.keepOuts.map((box, i) => (
        <rect key={i} {...rect(box, lengthMm)} fill="var(--bed)" />
      ))}
      {area.marks.map((box, i) => (
        <rect
          key={i}
          {...rect(box, lengthMm)}
          fill={hasOwnMarks ? 'var(--ink)' : 'var(--ink-2)'}
          opacity={hasOwnMarks ? 1 : 0.45}
        />
      ))}
      <rect {...rect(area.printable, lengthMm)} fill="none" stroke="var(--ink)" strokeWidth={hair} />
      {area.usable && (
        <rect
          {...rect(area.usable, lengthMm)}
          fill="none"
          stroke="var(--ink-2)"
          strokeWidth={hair}
          strokeDasharray={`${hair} ${2 * hair}`}
        />
      )}
    </g>
  );
}

function Flags({
  flags,
  lengthMm,
  size,
}: {
  readonly flags: readonly Flag[];
  readonly lengthMm: number;
  readonly size: number;
}) {
  return flags.map(({ no, box }, i) => {
    const { x, y, width, height } = rect(box, lengthMm);
    return (
      <g key={i}>
        <rect {...{ x, y, width, height }} fill="none" stroke="var(--watch)" strokeWidth={size / 10} />
        <circle cx={x} cy={y} r={0.62 * size} fill="var(--watch)" />
        <text x={x} y={y + 0.32 * size} fontSize={0.9 * size} textAnchor="middle" fill="var(--sheet)">
          {no}
        </text>
      </g>
    );
  });
}

type CopiesProps = Pick<Props, 'placements' | 'views'> & { readonly lengthMm: number };

/** Every copy where it stands, y up. */
const Copies = memo(function Copies({ placements, views, lengthMm }: CopiesProps) {
  return (
    <g transform={`translate(0 ${lengthMm}) scale(1 -1)`}>
      {placements.map((p, i) =>
        views[p.itemId] ? (
          <use key={i} href={`#item-${p.itemId}`} transform={place(p)} />
        ) : (
          <rect
            key={i}
            x={p.box.left}
            y={p.box.bottom}
            width={p.box.width}
            height={p.box.height}
            fill="var(--ink)"
            opacity={0.12}
          />
        ),
      )}
    </g>
  );
});

/** The page as it lies with its leading end up: what can be used, what stands on it, and what is to be looked at. */
export function LayoutPicture(props: Props) {
  const { page, area, placements, views, pictures, isMirrored, spare, flags, leadingWords, system, onInset } = props;
  const { widthMm, lengthMm } = page;
  const front = spare?.frontMm ?? 0;
  const rear = spare?.rearMm ?? 0;
  const whole = Math.max(widthMm, lengthMm + front + rear);
  const hair = whole / 900;
  const margin = whole / 18;
  const words = whole / 34;
  // The page's width stays while its inset is dragged: items need not be drawn anew.
  const cutHair = widthMm / 600;
  return (
    <svg
      viewBox={`${-margin / 2} ${-front - margin} ${widthMm + margin} ${lengthMm + front + rear + 1.5 * margin}`}
      className="drawing layout"
      role={onInset ? 'group' : 'img'}
      aria-label={`The page, ${formatLength(widthMm, system)} wide and ${formatLength(lengthMm, system)} long, with ${placements.length} copies`}
    >
      <Spare page={page} spare={spare} hair={hair} />
      <rect x={0} y={0} width={widthMm} height={lengthMm} fill="var(--sheet)" stroke="var(--rule)" strokeWidth={hair} />
      <RollerBars page={page} rollers={props.rollers} />
      <Zones page={page} area={area} hasOwnMarks={props.hasOwnMarks} hair={hair} />
      <defs>
        {Object.entries(views).map(([id, view]) => (
          <ItemDrawing key={id} view={view} picture={pictures[id]} isMirrored={isMirrored} hair={cutHair} />
        ))}
      </defs>
      <Copies placements={placements} views={views} lengthMm={lengthMm} />
      <text x={widthMm / 2} y={-front - words / 2} fontSize={words} textAnchor="middle" fill="var(--ink)">
        {`\u2191 ${leadingWords}`}
      </text>
      <Flags flags={flags} lengthMm={lengthMm} size={whole / 40} />
      {onInset && <InsetHandle page={page} size={whole / 16} system={system} onInset={onInset} />}
    </svg>
  );
}
