import { sheetToView, type TurnDeg } from '@/core/geometry/load';
import {
  COMB_BELOW_MM,
  COMB_BOX_LENGTH_MM,
  COMB_BOX_WIDTH_MM,
  COMB_PITCH_MM,
  COMB_REACH_MM,
  combAnswers,
  combToSheet,
  nearestAnswer,
} from '@/core/target/comb';
import type { CombFigure, WedgeFigure } from '@/core/target/sheet-definition';
import { divisionOf, nearestWedgeReading, type ReadingScale } from '@/core/target/reading-scale';
import { figureToSheet } from '@/core/target/wedge';
import { formatReading } from '@/core/units/length';
import { figureTurn, type FigureTurn } from './wedge-view';

/** A figure that is read by itself, one direction at a time. */
export type LookFigure = WedgeFigure | CombFigure;

/** How far a figure shows the cut to be off, either way. */
export const reachOf = (figure: LookFigure): number =>
  figure.kind === 'wedge' ? divisionOf(figure.scale).wedgeReachMm : COMB_REACH_MM;

/** The nearest answer that a figure can give. */
export const settled = (figure: LookFigure, mm: number): number =>
  figure.kind === 'wedge' ? nearestWedgeReading(mm, figure.scale) : nearestAnswer(combAnswers(figure), mm).readingMm;

/** So many of the figure's own steps further: of a wedge its scale's step, of a comb from tick to half to tick. */
export function nudged(figure: LookFigure, mm: number, steps: number): number {
  if (figure.kind === 'wedge')
    return nearestWedgeReading(mm + steps * divisionOf(figure.scale).wedgeStepMm, figure.scale);
  const answers = combAnswers(figure);
  const now = answers.indexOf(nearestAnswer(answers, mm));
  const next = Math.max(0, Math.min(answers.length - 1, now + steps));
  return answers[next]?.readingMm ?? mm;
}

/** A leap that keeps the fine part: half a mm or 20 thou, or a whole pitch of the comb. */
export const leapt = (figure: LookFigure, mm: number, steps: number): number =>
  settled(figure, mm + steps * (figure.kind === 'wedge' ? divisionOf(figure.scale).wedgeLeapMm : COMB_PITCH_MM));

/** Turn from a comb's own frame to the screen: v is the direction measured, along its row; u runs across it. */
function combTurn(figure: CombFigure, viewTurnDeg: TurnDeg): FigureTurn {
  const t = sheetToView(viewTurnDeg);
  const zero = combToSheet(figure, { s: 0, w: 0 });
  const onScreen = (s: number, w: number): { x: number; y: number } => {
    const p = combToSheet(figure, { s, w });
    const [x, y] = [p.x - zero.x, p.y - zero.y];
    return { x: t.xx * x + t.xy * y, y: -(t.yx * x + t.yy * y) };
  };
  const along = onScreen(1, 0);
  const across = onScreen(0, 1);
  return { ux: across.x, uy: across.y, vx: along.x, vy: along.y };
}

export const turnOf = (figure: LookFigure, viewTurnDeg: TurnDeg): FigureTurn =>
  figure.kind === 'wedge' ? figureTurn(figure.axis, viewTurnDeg) : combTurn(figure, viewTurnDeg);

/** Whether a figure's picture stands upright on the screen. */
export function isTall(figure: LookFigure, turn: FigureTurn): boolean {
  const along = figure.kind === 'wedge' ? turn.uy : turn.vy;
  return Math.abs(along) > 0.5;
}

interface SheetBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What a figure takes on the sheet, to frame it. */
export function boxOf(figure: LookFigure): SheetBox {
  const half = COMB_BOX_LENGTH_MM / 2;
  const [a, b] =
    figure.kind === 'wedge'
      ? [figureToSheet(figure, { u: -2, v: -5 }), figureToSheet(figure, { u: 2 * figure.halfLengthMm + 2, v: 5 })]
      : [
          combToSheet(figure, { s: -half, w: -COMB_BELOW_MM }),
          combToSheet(figure, { s: half, w: COMB_BOX_WIDTH_MM - COMB_BELOW_MM }),
        ];
  return { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), width: Math.abs(b.x - a.x), height: Math.abs(b.y - a.y) };
}

/** Above the ruler a touch means a tick; on it, the place itself. */
const RULER_BELOW_W = -6;

/** The comb's answer for a touch: the tick that runs into the printed one there, or the rough place on the ruler. */
export function combFromTouch(
  figure: CombFigure,
  touch: { readonly x: number; readonly y: number },
  turn: FigureTurn,
  nowMm: number,
): number {
  const s = touch.x * turn.vx + touch.y * turn.vy;
  const w = touch.x * turn.ux + touch.y * turn.uy;
  if (w < RULER_BELOW_W) return settled(figure, s);
  const whole = Math.round(nowMm / COMB_PITCH_MM);
  const ticks = combAnswers(figure).filter((_, n) => n % 2 === 0);
  const own = ticks.filter((a) => Math.round(a.readingMm / COMB_PITCH_MM) === whole);
  const printed = (a: { readingMm: number; commandedMm: number }): number => a.readingMm + a.commandedMm;
  return own.reduce((best, a) => (Math.abs(printed(a) - s) < Math.abs(printed(best) - s) ? a : best)).readingMm;
}

/** Words that go with a figure at the station. */
export interface LookWords {
  readonly number: string;
  readonly touch: string;
  readonly leap: string;
  readonly beyond: string;
}

const beyondWords = (what: string, figure: LookFigure): string =>
  `The ${what} shows up to ${formatReading(reachOf(figure), scaleOfFigure(figure))} to either side. If the cut is further off, read the rough position.`;

export function lookWords(figure: LookFigure): LookWords {
  if (figure.kind === 'wedge')
    return {
      number: 'The tips meet at',
      touch: 'Tap where the tips meet',
      leap: formatReading(divisionOf(figure.scale).wedgeLeapMm, scaleOfFigure(figure)),
      beyond: beyondWords('figure', figure),
    };
  return {
    number: 'The ticks run into one line at',
    touch: 'Tap the long tick\u2019s place on the ruler, then the tick that runs on in one line',
    leap: 'to the next printed tick',
    beyond: beyondWords('comb', figure),
  };
}

/** Scale printed beside a figure. */
export const scaleOfFigure = (figure: LookFigure): ReadingScale => figure.scale ?? 'mm';
