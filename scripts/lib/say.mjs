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

/** How long something took, such as "3 min 12 s". @param since milliseconds of the clock when it began */
export function tookWords(since) {
  const seconds = Math.round((Date.now() - since) / 1000);
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
}
