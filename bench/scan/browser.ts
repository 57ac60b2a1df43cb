import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { basename, join } from 'node:path';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { LARGE_FIGURES } from '../../src/core/simulate/large-figures';
import { folder } from './pictures';
import type { Timed, TimeScan } from './page';

const WORKERS = ['scan.worker', 'png.worker'];

/** The page and the application's own workers, each in one file. */
async function bundle(): Promise<void> {
  await build({
    entryPoints: ['bench/scan/page.ts', ...WORKERS.map((name) => `src/workers/${name}.ts`)],
    outdir: folder,
    bundle: true,
    minify: true,
    format: 'esm',
    entryNames: '[name]',
    logLevel: 'error',
  });
}

function contentOf(url: string): readonly [type: string, body: Buffer | string] {
  if (url === '/') return ['text/html', '<!doctype html><script type="module" src="/page.js"></script>'];
  if (url === '/favicon.ico') return ['image/x-icon', ''];
  const name = basename(url).replace(/\.ts$/, '.js');
  return [name.endsWith('.js') ? 'text/javascript' : 'image/png', readFileSync(join(folder, name))];
}

/** Largest memory that any process of the browser that shows pages ever held, MB. */
function peakMb(): number {
  const peaks = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer')) return [];
        return [Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024];
      } catch {
        return [];
      }
    });
  return Math.max(...peaks);
}

export interface Browsed extends Timed {
  readonly peakMb: number;
}

export interface BenchBrowser {
  /** Measures a picture in a browser that was just started. */
  readonly measure: (path: string) => Promise<Browsed>;
  readonly close: () => void;
}

export async function benchBrowser(): Promise<BenchBrowser> {
  await bundle();
  const server = createServer(({ url = '/' }, response) => {
    const [type, body] = contentOf(url);
    response.setHeader('content-type', type);
    response.end(body);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  const origin = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;
  return {
    measure: async (path) => {
      const browser = await chromium.launch({
        executablePath: '/usr/bin/chromium',
        args: ['--no-sandbox', '--disable-dev-shm-usage'],
      });
      try {
        const page = await browser.newPage();
        await page.goto(origin);
        const timed = await page.evaluate(
          ([href, figures]) => (globalThis as unknown as { timed: TimeScan }).timed(href, figures),
          [`/${basename(path)}`, LARGE_FIGURES] as const,
        );
        return { ...timed, peakMb: peakMb() };
      } finally {
        await browser.close();
      }
    },
    close: () => {
      server.close();
    },
  };
}
