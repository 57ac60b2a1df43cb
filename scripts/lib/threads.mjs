/** The code of threads and of the decoding process, each as one file that Node runs as it is. */
export const THREADS = '.red-plumb/threads';

/** `server-only` keeps modules out of the browser; in a thread of the server there is nothing to keep out. */
const onTheServer = {
  name: 'server-only',
  setup(build) {
    build.onResolve({ filter: /^server-only$/ }, () => ({ path: 'server-only', namespace: 'nothing' }));
    build.onLoad({ filter: /.*/, namespace: 'nothing' }, () => ({ contents: '' }));
  },
};

export async function buildThreads() {
  const { build } = await import('esbuild');
  await build({
    entryPoints: ['src/server/threads/computation.ts', 'src/server/threads/decoder.ts'],
    outdir: THREADS,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    plugins: [onTheServer],
    logLevel: 'error',
  });
}
