/** The one clock. Seeds and pictures set it; everything else asks it. */
const kept = globalThis as unknown as { redPlumbNow?: () => Date };

export function now(): Date {
  return kept.redPlumbNow?.() ?? new Date();
}

export function setClock(clock: (() => Date) | undefined): void {
  if (clock) kept.redPlumbNow = clock;
  else delete kept.redPlumbNow;
}
