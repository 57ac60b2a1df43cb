/** The page that stands alone while the database does not answer: it says why, looks again by itself, and goes on. */
import { randomBytes } from 'node:crypto';

const DARK = '--paper: #11171f; --ink: #dfe6f0; --ink-2: #9aa8bb; --plumb: #ff5d66';
const STYLE = `
:root { --paper: #f4f2ec; --ink: #14233c; --ink-2: #4a5870; --plumb: #c4162a; color-scheme: light dark }
@media (prefers-color-scheme: dark) { :root:not([data-theme=light]) { ${DARK} } }
:root[data-theme=dark] { ${DARK}; color-scheme: dark }
body { margin: 0; padding: 12vh 1.25rem 2rem; background: var(--paper); color: var(--ink); font: 18px/1.45 system-ui, sans-serif }
main { max-width: 30rem; margin: 0 auto; border-left: 2px solid var(--plumb); padding-left: 1.25rem }
h1 { font-size: 1.6rem; margin: 0 0 .5rem } p { margin: 0 0 1rem } .quiet { color: var(--ink-2) }`;

const WORDS = {
  full: {
    title: 'The disk is full',
    now: 'Free some space on the machine that runs Red Plumb. This page then goes on by itself.',
  },
  stopped: {
    title: 'The database has stopped, trying again',
    now: 'This page goes on by itself, usually within 10 seconds.',
  },
};

const scriptFor = (state) => `
const words = ${JSON.stringify(WORDS)};
const show = (state) => {
  document.querySelector('h1').textContent = words[state].title;
  document.getElementById('now').textContent = words[state].now;
};
const look = async () => {
  try {
    const answer = await fetch('/readyz', { cache: 'no-store' });
    if (answer.ok) return location.reload();
    show((await answer.json()).disk === 'full' ? 'full' : 'stopped');
  } catch { show('${state}'); }
  setTimeout(look, 1000);
};
setTimeout(look, 1000);`;

/** The theme that a browser has chosen, by its cookie; without one the page follows the browser's own. */
const themeOf = (cookie = '') => /(?:^|;\s*)theme=(light|dark)(?:;|$)/.exec(cookie)?.[1];

/**
 * @param {{ disk: 'enough' | 'full' }} health
 * @param {string | undefined} cookie of the request
 * @returns headers and text of an answer with status 503
 */
export function stoppedPage(health, cookie) {
  const theme = themeOf(cookie);
  const state = health.disk === 'full' ? 'full' : 'stopped';
  const nonce = randomBytes(16).toString('base64');
  const { title, now } = WORDS[state];
  const text = `<!doctype html>
<html lang="en"${theme ? ` data-theme="${theme}"` : ''}><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title} · Red Plumb</title><style nonce="${nonce}">${STYLE}</style></head>
<body><main><h1 role="status">${title}</h1><p id="now">${now}</p>
<p class="quiet">Everything that was saved is kept.</p></main><script nonce="${nonce}">${scriptFor(state)}</script></body></html>`;
  const headers = {
    'content-type': 'text/html; charset=utf-8',
    'cache-control': 'no-store',
    'retry-after': '5',
    'x-content-type-options': 'nosniff',
    'content-security-policy': `default-src 'none'; style-src 'nonce-${nonce}'; script-src 'nonce-${nonce}'; connect-src 'self'; base-uri 'none'; frame-ancestors 'none'`,
  };
  return { headers, text };
}
