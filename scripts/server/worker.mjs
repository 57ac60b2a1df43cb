/** One process of the application: `node scripts/server/worker.mjs <address> <port>`, in a cluster or alone. */
import { createServer } from 'node:http';
import next from 'next';
import pg from 'pg';
import { pino } from 'pino';
import { numberErrors } from './error-numbers.mjs';
import { POOL, watchHealth } from './health.mjs';
import { isTrusted, proxyList, refusalOf, settleHeaders } from './incoming.mjs';
import { stoppedPage } from './stopped-page.mjs';

/** Answers that are under way get this long once the process is asked to end. */
const GRACE_MS = 5000;
/** A client that sends its head this slowly is not one of ours. */
const HEAD_MS = 20_000;

const [address = '127.0.0.1', port = '3210'] = process.argv.slice(2);
const log = pino({ level: process.env.RED_PLUMB_LOG_LEVEL ?? 'info', base: { pid: process.pid } });
const proxies = proxyList(process.env.RED_PLUMB_TRUSTED_PROXIES ?? '');

const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, ...POOL });
pool.on('error', () => undefined);
pool.on('connect', (client) => client.on('error', () => undefined));
const health = watchHealth({ pool, folder: process.env.RED_PLUMB_DATA });

const underNumber = numberErrors();
const app = next({ dev: false, dir: process.cwd(), hostname: address, port: Number(port) });
await app.prepare();
const handle = app.getRequestHandler();

function say(response, status, words) {
  response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' });
  response.end(`${words}\n`);
}

async function tellReady(response) {
  const state = await health.ask();
  const isReady = state.database === 'ready' && state.disk === 'enough';
  response.writeHead(isReady ? 200 : 503, { 'content-type': 'application/json', 'cache-control': 'no-store' });
  response.end(JSON.stringify(state));
}

/**
 * Whether a request opens a page as a whole. A part of one that is open already is left to that page: it keeps what was typed on it, says
 * what is wrong and goes on by itself. What is sent in is answered in words by whoever takes it.
 */
const opensPage = ({ method, headers }) =>
  method === 'GET' && (headers.accept ?? '').includes('text/html') && headers.rsc === undefined;

function logWhenDone(request, response, number) {
  const begun = performance.now();
  const { method } = request;
  // A socket that is cut off has no address any more when its answer ends.
  const { remoteAddress } = request.socket;
  const [path] = request.url.split('?');
  response.on('close', () => {
    if (path.startsWith('/_next/static/')) return;
    const from = isTrusted(proxies, remoteAddress) ? request.headers['x-forwarded-for'] : undefined;
    log.info(
      {
        ...{ request: number, method, path, status: response.statusCode, ms: Math.round(performance.now() - begun) },
        ...{ from: from ?? remoteAddress, ...(!response.writableFinished && { isCutOff: true }) },
      },
      'answered',
    );
  });
}

async function answer(request, response) {
  const number = settleHeaders(request, proxies);
  response.setHeader('x-request-number', number);
  const refused = refusalOf(request);
  if (refused) return say(response, refused.status, refused.words);
  if (request.url === '/healthz') return say(response, 200, 'ok');
  if (request.url === '/readyz') return tellReady(response);
  logWhenDone(request, response, number);
  if (health.state().database === 'stopped' && opensPage(request)) {
    const { headers, text } = stoppedPage(health.state(), request.headers.cookie);
    response.writeHead(503, headers);
    return response.end(text);
  }
  return underNumber(number, () => handle(request, response));
}

const server = createServer({ headersTimeout: HEAD_MS }, (request, response) => {
  answer(request, response).catch((error) => {
    log.error({ err: error, request: request.headers['x-request-number'] }, 'a request failed');
    if (response.headersSent) response.destroy();
    else say(response, 500, 'That did not work. Try again.');
  });
});
// Nothing here speaks another protocol: the socket is answered and given back.
const refuseUpgrade = (_request, socket) => {
  socket.on('error', () => undefined);
  socket.end('HTTP/1.1 400 Bad Request\r\nConnection: close\r\nContent-Length: 0\r\n\r\n');
};
server.on('upgrade', refuseUpgrade);
server.on('connect', refuseUpgrade);
// The framework adds a listener of its own with its first request, which would keep the socket.
const { on } = server;
server.on = (name, listener) => (name === 'upgrade' ? server : on.call(server, name, listener));

let isEnding = false;
function end() {
  if (isEnding) return;
  isEnding = true;
  health.end();
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => {
    server.closeAllConnections();
    process.exit(0);
  }, GRACE_MS).unref();
}
process.on('SIGTERM', end);
process.on('SIGINT', end);
// Whoever started this process is gone: nobody else would end it.
process.on('disconnect', end);

server.listen(Number(port), address, () => log.info({ address, port: Number(port) }, 'listening'));
