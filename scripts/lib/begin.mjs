import { fileURLToPath } from 'node:url';
import { nodeProblem } from './node-version.mjs';

/**
 * Begins a command that somebody may run first: an unfit Node is refused in words before any file is read that it could not
 * understand. A `Stop` is a message; anything else is a fault and shows its trace. Both end with status 1. The command runs in the project's
 * folder, from wherever it was called.
 * @param load imports the command's own module and runs it.
 */
export async function begin(load) {
  const problem = nodeProblem(process.versions.node);
  if (problem) {
    process.stderr.write(`\n${problem}\n`);
    process.exit(1);
  }
  process.chdir(fileURLToPath(new URL('../..', import.meta.url)));
  try {
    await load();
  } catch (error) {
    process.stderr.write(error?.isStop === true ? `\n${error.message}\n` : `\n${error?.stack ?? error}\n`);
    process.exit(1);
  }
}
