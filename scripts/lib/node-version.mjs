/** Whether this Node is new enough. Written so that an old Node can read it: nothing but plain statements and `node:fs`. */
import fs from 'node:fs';

const numbers = (version) => version.split('.').map(Number);

function isAtLeast(version, least) {
  const [a, b] = [numbers(version), numbers(least)];
  for (let i = 0; i < 3; i++) if (a[i] !== b[i]) return a[i] > b[i];
  return true;
}

/** `^20.19.0` takes later versions of the same major, `>=24` everything later: all that `engines` here may use. */
function isWithin(version, alternative) {
  const least = alternative.replace(/^(\^|>=)/, '');
  const whole = [...numbers(least), 0, 0].slice(0, 3).join('.');
  const sameMajor = numbers(version)[0] === numbers(whole)[0];
  return isAtLeast(version, whole) && (alternative.startsWith('>=') || sameMajor);
}

const manifest = new URL('../../package.json', import.meta.url);

/** What is wrong with a version of Node, in words; null where it will do. */
export function nodeProblem(version) {
  const range = JSON.parse(fs.readFileSync(manifest, 'utf8')).engines.node;
  if (range.split(' || ').some((alternative) => isWithin(version, alternative))) return null;
  return `Red Plumb needs Node ${range}. This is Node ${version}. Install a newer Node and start again.`;
}
