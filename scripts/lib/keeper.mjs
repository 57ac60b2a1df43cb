import { isPortOpen } from './ports.mjs';

const LOOK_EVERY_MS = 500;
const AGAIN_AFTER_MS = 1500;
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Watches the private database server and starts it again whenever it has died, until told to end. A start that fails (a full
 * disk) is tried again and again; its reason is said once, when it is new.
 * @param {(words: string) => void} tell
 */
export function keepServer(server, tell) {
  let isEnding = false;
  const look = async () => {
    let told = '';
    while (!isEnding) {
      await pause(LOOK_EVERY_MS);
      if (isEnding || (await isPortOpen(server.port))) continue;
      if (told === '') tell('The database has stopped. Starting it again ...');
      const lastWords = await server.revive();
      if (lastWords === null) {
        tell('The database runs again.');
        told = '';
        continue;
      }
      if (lastWords !== told) tell(`The database did not start again. Its last words:\n${lastWords}`);
      told = lastWords;
      await pause(AGAIN_AFTER_MS);
    }
  };
  const looking = look();
  return {
    /** Resolves once nothing is started any more. */
    end: () => {
      isEnding = true;
      return looking;
    },
  };
}
