'use client';

import type { Placement } from '@/core/layout/fill-page';
import { grownBox, type LayoutPage, type PageArea } from '@/core/layout/page-area';
import type { Rollers } from '@/core/layout/rollers';
import { TEST_CUT_MM, TEST_CUT_ROOM_MM } from '@/core/layout/spare';
import type { Box } from '@/core/target/block';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { InsetHandle, type InsetMove } from './InsetHandle';
import { Copies, ItemDrawing, type DrawnItem } from './LayoutCopies';

/** A place on the page that a finding speaks of. */
export interface Flag {
  readonly no: number;
  readonly box: Box;
}

interface Props {
  readonly page: Pick<LayoutPage, 'widthMm' | 'lengthMm'>;
  readonly area: PageArea;
  readonly placements: readonly Placement[];
  readonly views: Readonly<Record<string, DrawnItem>>;
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
  readonly inset?: InsetMove;
}

/** A box of the page as an SVG has it, y down from the page's upper end. */
const rect = (box: Box, lengthMm: number) => ({
  x: box.left,
  y: lengthMm - box.bottom - box.height,
  width: box.width,
  height: box.height,
});

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

interface LeadingProps extends Pick<Props, 'page' | 'area'> {
  readonly frontMm: number;
  /** Height of the words, mm. */
  readonly size: number;
  readonly words: string;
}

/** The end that goes in first: a bar across it, an arrow into the cutter, its own marks ringed, and its words. */
function LeadingEnd({ page, area, frontMm, size, words }: LeadingProps) {
  const { widthMm, lengthMm } = page;
  const foremost = Math.max(...area.marks.map((box) => box.bottom + box.height));
  const ringed = area.marks.filter((box) => box.bottom + box.height > foremost - box.height);
  return (
    <g fill="var(--ink)" stroke="var(--ink)">
      <path d={`M0 ${-frontMm}h${widthMm}`} strokeWidth={size / 5} />
      <path d={`M${widthMm / 2 - size / 2} ${-frontMm}h${size}l${-size / 2} ${-0.8 * size}z`} stroke="none" />
      {ringed.map((box, i) => (
        <rect key={i} {...rect(grownBox(box, size / 4), lengthMm)} fill="none" strokeWidth={size / 12} />
      ))}
      <text x={widthMm / 2} y={-frontMm - 1.1 * size} fontSize={size} textAnchor="middle" stroke="none">
        {words}
      </text>
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

/** The page as it lies with its leading end up: what can be used, what stands on it, and what is to be looked at. */
export function LayoutPicture(props: Props) {
  const { page, area, placements, views, pictures, isMirrored, spare, flags, leadingWords, system, inset } = props;
  const { widthMm, lengthMm } = page;
  const front = spare?.frontMm ?? 0;
  const rear = spare?.rearMm ?? 0;
  const whole = Math.max(widthMm, lengthMm + front + rear);
  const hair = whole / 900;
  const margin = whole / 14;
  const words = whole / 34;
  // The page's width stays while its inset is dragged: items need not be drawn anew.
  const cutHair = widthMm / 600;
  return (
    <svg
      viewBox={`${-margin / 2} ${-front - margin} ${widthMm + margin} ${lengthMm + front + rear + 1.5 * margin}`}
      className={inset?.isHeld ? 'drawing layout held' : 'drawing layout'}
      role={inset ? 'group' : 'img'}
      aria-label={`The page, ${formatSize(widthMm, system)} wide and ${formatSize(lengthMm, system)} long, with ${placements.length} copies`}
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
      <LeadingEnd page={page} area={area} frontMm={front} size={words} words={leadingWords} />
      <Flags flags={flags} lengthMm={lengthMm} size={whole / 40} />
      {inset && <InsetHandle {...{ page, system, ...inset }} size={whole / 16} />}
    </svg>
  );
}
