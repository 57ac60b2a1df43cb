import type { MarkScheme } from '../shop/marks';

/** Pinch rollers as a cutter has them at both edges: how wide, and how far in from the material's edge they are set. */
export interface Rollers {
  readonly widthMm: number;
  readonly fromEdgeMm: number;
}

export interface RollerCheck {
  /** Between a roller's inner side and the marks; negative where it runs over them. */
  readonly clearMm: number;
  readonly verdict: 'clear' | 'near' | 'on marks';
}

/** Less than this between roller and marks is called near: rollers are set by eye. Common practice, no published source. */
export const ROLLER_ROOM_MM = 3;

/** Whether rollers at the edges stay clear of the marks. Null where there are no marks to run over. */
export function checkRollers(rollers: Rollers, marks: Pick<MarkScheme, 'kind' | 'insetMm'>): RollerCheck | null {
  if (marks.kind === 'none') return null;
  const clearMm = marks.insetMm - rollers.fromEdgeMm - rollers.widthMm;
  if (clearMm < 0) return { clearMm, verdict: 'on marks' };
  return { clearMm, verdict: clearMm < ROLLER_ROOM_MM ? 'near' : 'clear' };
}
