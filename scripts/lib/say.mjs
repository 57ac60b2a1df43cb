/** Plain words to the one who started a command; problems end it with what to do. */
export function say(text) {
  process.stdout.write(`${text}\n`);
}

export class Stop extends Error {}

export function stop(text) {
  throw new Stop(text);
}

/** Runs a command's main function: a Stop is a message, anything else a fault with its trace. */
export async function main(run) {
  try {
    await run();
  } catch (error) {
    process.stderr.write(error instanceof Stop ? `\n${error.message}\n` : `\n${error?.stack ?? error}\n`);
    process.exit(1);
  }
}
