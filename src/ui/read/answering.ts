import type { KeyboardEvent } from 'react';

/** Said when a picture is called right that nobody has moved: it began at a random place. */
export const MOVE_FIRST = 'Move the picture first: it starts at a random place, so that you are not led.';

/** Whether a key takes the last answer back. */
export const isUndo = (event: KeyboardEvent): boolean =>
  (event.ctrlKey || event.metaKey) && !event.shiftKey && event.key.toLowerCase() === 'z';

/** Anywhere within half a mm, never the prediction: the eye must do the work. */
export function randomStart(): number {
  const [bits = 0] = crypto.getRandomValues(new Uint32Array(1));
  return bits / 2 ** 32 - 0.5;
}

/** The first open place after one, round to it again; null once all are answered. */
export function nextOpen(names: readonly string[], after: number, isOpen: (name: string) => boolean): number | null {
  const round = [...names.slice(after + 1), ...names.slice(0, after)];
  const open = round.find(isOpen);
  return open === undefined ? null : names.indexOf(open);
}
