import 'server-only';
import type { MadeFile } from './files';

/** A few words instead of a file. */
export const plain = (status: number, message: string): Response =>
  new Response(message, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } });

/** A file as an attachment. Its policy, that no browser runs anything of it, is the guard's: see proxy.ts. */
export const fileResponse = ({ name, mediaType, body }: MadeFile): Response =>
  new Response(typeof body === 'string' ? body : new Uint8Array(body), {
    headers: {
      'content-type': mediaType,
      'content-disposition': `attachment; filename="${name}"`,
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-store',
    },
  });
