/** Plain words to the one who started a command; a problem ends it with what to do. */
export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** A problem that its message explains: `begin` shows it without a trace. */
export class Stop extends Error {
  isStop = true;
}

export function stop(text) {
  throw new Stop(text);
}
