import { aboutCentre, correctionOnPage, type DrawingLies } from '@/core/cutting/page-move';
import type { Affine, Point } from '@/core/geometry/affine';
import { fromParameters, type ErrorParameters } from '@/core/geometry/error-parameters';
import { movePoint, type PlaneMove } from '@/core/geometry/plane-move';
import { cutCorrection } from '@/core/setting/correct-cut';
import type { DrawnGroup, Survey } from '@/workers/cut-file.client';

export const ROLES = ['stays', 'cut', 'marks'] as const;
export type Role = (typeof ROLES)[number];
export const ROLE_WORDS: Readonly<Record<Role, string>> = { stays: 'art', cut: 'to cut', marks: 'marks' };

type PageMap = Affine<'page', 'page'>;
type Box = NonNullable<DrawnGroup['box']>;

/** Names that drawings give to what is cut. Common practice, no published source. */
const CUT_NAME = /cut|knife|kiss|contour|die/i;
const MARK_NAME = /mark|reg/i;
const REDS: ReadonlySet<string> = new Set(['#ff0000', 'colour 1']);

/** What a group probably is: a guess that the user sees and changes. */
export function likelyRole(group: DrawnGroup): Role {
  if (group.by === 'colour') return REDS.has(group.name) ? 'cut' : 'stays';
  if (CUT_NAME.test(group.label)) return 'cut';
  return MARK_NAME.test(group.label) ? 'marks' : 'stays';
}

const joined = (boxes: readonly (Box | null)[]): Box | null =>
  boxes.reduce<Box | null>(
    (all, box) =>
      !all || !box
        ? (all ?? box)
        : {
            left: Math.min(all.left, box.left),
            bottom: Math.min(all.bottom, box.bottom),
            right: Math.max(all.right, box.right),
            top: Math.max(all.top, box.top),
          },
    null,
  );

/** The box that everything is drawn in: the page where there is one. */
export function wholeBox(survey: Survey): Box {
  const drawn = joined(survey.groups.map((g) => g.box)) ?? { left: 0, bottom: 0, right: 1, top: 1 };
  if (survey.widthMm === null || survey.heightMm === null) return drawn;
  return { left: 0, bottom: 0, right: survey.widthMm, top: survey.heightMm };
}

/** The middle that a correction was measured about: that of the marks, else of the page, else of all that is drawn. */
export function likelyCentre(survey: Survey, marks: readonly DrawnGroup[]): Point<'page'> {
  const box = joined(marks.map((g) => g.box)) ?? wholeBox(survey);
  return { x: (box.left + box.right) / 2, y: (box.bottom + box.top) / 2 };
}

/** A move typed as the error that is seen: cut less print, in the drawing's own directions. */
export function typedMove(error: ErrorParameters, centre: Point<'page'>): PageMap {
  return aboutCentre(cutCorrection(fromParameters<'page'>(error)), centre);
}

export const savedMove = (
  [xx = 1, xy = 0, yx = 0, yy = 1, tx = 0, ty = 0]: readonly number[],
  lies: DrawingLies,
  centre: Point<'page'>,
): PageMap => correctionOnPage({ xx, xy, yx, yy, tx, ty }, lies, centre);

/** Farthest that any corner of a box goes, mm. */
export function farthestMm(move: PlaneMove, { left, bottom, right, top }: Box): number {
  const corners = [left, right].flatMap((x) => [bottom, top].map((y) => ({ x, y })));
  return Math.max(
    ...corners.map((p) => {
      const moved = movePoint(move, p);
      return Math.hypot(moved.x - p.x, moved.y - p.y);
    }),
  );
}
