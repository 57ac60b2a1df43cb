'use client';

import { memo } from 'react';
import type { Placement } from '@/core/layout/fill-page';
import type { ItemView } from '@/workers/layout.client';

/** What of an item is drawn. */
export type DrawnItem = Pick<ItemView, 'id' | 'artBox' | 'shapes' | 'cutPath' | 'scorePath'>;

interface ItemProps {
  readonly view: DrawnItem;
  readonly picture: string | undefined;
  readonly isMirrored: boolean;
  /** Of a thin line, in mm. */
  readonly hair: number;
}

/** One item in its own cell, y up: art as it is printed, the cut dashed. Drawn anew only when the item itself changes. */
export const ItemDrawing = memo(function ItemDrawing({ view, picture, isMirrored, hair }: ItemProps) {
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
          strokeLinecap={s.stroke?.ends}
          strokeLinejoin={s.stroke?.corners}
          strokeMiterlimit={s.stroke?.miterLimit}
        />
      ))}
      <path
        className="halo"
        d={view.cutPath + view.scorePath}
        fill="none"
        stroke="var(--sheet)"
        strokeWidth={3 * hair}
      />
      {view.scorePath !== '' && (
        <path
          d={view.scorePath}
          className="cut"
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.6 * hair}
          strokeDasharray={`${2 * hair} ${3 * hair}`}
        />
      )}
      <path
        d={view.cutPath}
        className="cut"
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

interface CopiesProps {
  readonly placements: readonly Placement[];
  readonly views: Readonly<Record<string, DrawnItem>>;
  readonly lengthMm: number;
}

/** Every copy where it stands, y up. */
export const Copies = memo(function Copies({ placements, views, lengthMm }: CopiesProps) {
  return (
    <g className="copies" transform={`translate(0 ${lengthMm}) scale(1 -1)`}>
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
