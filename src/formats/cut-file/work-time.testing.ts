/**
 * How long a piece of work keeps the processor busy, ms: the time that it would take on a machine with nothing else to do.
 * What other programs hold it up by is not its own.
 */
export function timed<T>(work: () => T): { readonly value: T; readonly busyMs: number } {
  const from = process.cpuUsage();
  const value = work();
  const { user, system } = process.cpuUsage(from);
  return { value, busyMs: (user + system) / 1000 };
}
