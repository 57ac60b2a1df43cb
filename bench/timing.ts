export const print = (line: string): void => {
  process.stdout.write(`${line}\n`);
};

/** Shortest of some runs, ms: for pairs that are compared, the least disturbed of each. */
export function bestMs(rounds: number, work: () => unknown): number {
  let best = Infinity;
  for (let i = 0; i < rounds; i++) {
    const from = performance.now();
    work();
    best = Math.min(best, performance.now() - from);
  }
  return best;
}

/** One line of the table: ours, the reference, their ratio. */
export function line(name: string, ms: number, reference: string, referenceMs: number): void {
  print(
    `${name.padEnd(46)}${ms.toFixed(3).padStart(10)} ms${referenceMs.toFixed(3).padStart(12)} ms ${reference.padEnd(26)}${(ms / referenceMs).toFixed(2).padStart(8)}`,
  );
}
