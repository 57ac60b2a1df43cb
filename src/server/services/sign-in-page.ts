import 'server-only';
import { randomBytes } from 'node:crypto';
import { MOST_CHARACTERS } from './passphrase';

const escapeHtml = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

const STYLE = `
:root { --paper: #f4f2ec; --ink: #14233c; --ink-2: #4a5870; --plumb: #c4162a; --sheet: #fffefb; color-scheme: light dark }
@media (prefers-color-scheme: dark) { :root { --paper: #11171f; --ink: #dfe6f0; --ink-2: #9aa8bb; --plumb: #ff5d66; --sheet: #1b232e } }
* { box-sizing: border-box }
body { margin: 0; padding: 12vh 1.25rem 2rem; background: var(--paper); color: var(--ink); font: 18px/1.45 system-ui, sans-serif }
main { max-width: 26rem; margin: 0 auto; border-left: 2px solid var(--plumb); padding-left: 1.25rem }
h1 { font-size: 1.6rem; margin: 0 0 .5rem } p { margin: 0 0 1rem; color: var(--ink-2) } .said { color: var(--ink); font-weight: 600 }
label { display: block; margin-bottom: .25rem }
input[type=password], input[type=text] { width: 100%; min-height: 48px; padding: .5rem .75rem; font: inherit; color: inherit; background: var(--sheet); border: 1px solid var(--ink-2) }
.show { display: flex; gap: .6rem; align-items: center; min-height: 44px } .show input { width: 22px; height: 22px }
button { min-height: 48px; padding: .5rem 1.5rem; font: inherit; color: var(--sheet); background: var(--ink); border: 0 }
:focus-visible { outline: 3px solid var(--ink-2); outline-offset: 2px }`;

const SCRIPT = `document.getElementById('show').addEventListener('change', (e) => { document.getElementById('passphrase').type = e.target.checked ? 'text' : 'password'; });`;

/** The one page that answers to a stranger. It stands alone: no script, style, font or picture of the application goes with it. */
export function signInPage(status: number, to: string, said: string): Response {
  const nonce = randomBytes(16).toString('base64');
  const message = said ? `<p class="said" role="alert" id="said">${escapeHtml(said)}</p>` : '';
  const html = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Red Plumb: come in</title><style nonce="${nonce}">${STYLE}</style></head>
<body><main><h1>Come in</h1>
<p>Ask at the machine that runs Red Plumb for this shop's passphrase.</p>${message}
<form method="post" action="/sign-in"><input type="hidden" name="to" value="${escapeHtml(to)}">
<label for="passphrase">Passphrase</label>
<input id="passphrase" name="passphrase" type="password" required autofocus maxlength="${MOST_CHARACTERS}" autocomplete="current-password" autocapitalize="none" spellcheck="false"${said ? ' aria-describedby="said" aria-invalid="true"' : ''}>
<label class="show"><input id="show" type="checkbox">Show it</label>
<button>Come in</button></form></main><script nonce="${nonce}">${SCRIPT}</script></body></html>`;
  return new Response(html, {
    status,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      'content-security-policy': `default-src 'none'; style-src 'nonce-${nonce}'; script-src 'nonce-${nonce}'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'`,
    },
  });
}
