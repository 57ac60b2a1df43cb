import type { Instrumentation } from 'next';

const REQUEST_NUMBER = /^[2-9A-Z]{4}-[2-9A-Z]{4}$/;

/**
 * Logs what went wrong while a page was drawn, with the number of its request. The error's digest is all of it that reaches the
 * browser: it becomes the number, so that the page shows what the log can be searched for.
 */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  // Built for other surroundings as well, which have neither log nor process.
  if (process.env.NEXT_RUNTIME === 'edge') return;
  const number = request.headers['x-request-number'];
  const known = error as { digest?: string };
  // Told a second time when the same error comes up again while the page is put together.
  if (known.digest !== undefined && REQUEST_NUMBER.test(known.digest)) return;
  if (typeof number === 'string') known.digest = number;
  const { log } = await import('./server/log');
  log.error(
    { err: error, request: number, path: request.path.split('?')[0], route: context.routePath },
    'a page failed',
  );
};
