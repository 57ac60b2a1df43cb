import type { Instrumentation } from 'next';

/** Logs what went wrong while a page was drawn, with the number of its request, which the page shows. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  // Built for other surroundings as well, which have neither log nor process.
  if (process.env.NEXT_RUNTIME === 'edge') return;
  const { log } = await import('./server/log');
  const { 'x-request-number': number } = request.headers;
  log.error(
    { err: error, request: number, path: request.path.split('?')[0], route: context.routePath },
    'a page failed',
  );
};
