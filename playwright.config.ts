import { defineConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 3987);
/** A second server that takes itself to be reachable from the network, as the start command starts it for phones. */
const doorPort = Number(process.env.E2E_DOOR_PORT ?? port + 1);
process.env.E2E_DOOR_PORT = String(doorPort);

const server = (host: string, at: number, bound: 'loopback' | 'beyond') => ({
  command: `${process.execPath} scripts/serve.mjs -H ${host} -p ${at}`,
  url: `http://localhost:${at}/sign-in`,
  env: {
    RED_PLUMB_BOUND: bound,
    RED_PLUMB_DOOR_PORT: String(doorPort),
    RED_PLUMB_URL: `http://workshop.example:${doorPort}`,
  },
  reuseExistingServer: false,
  gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 } as const,
});

export default defineConfig({
  testDir: 'e2e',
  workers: 1,
  fullyParallel: false,
  retries: 0,
  // Long enough for a busy machine: what passes takes no longer for it.
  timeout: 240_000,
  expect: { timeout: 20_000 },
  reporter: [['line'], ['json']],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // A plain name without a certificate, as a phone sees the door: browsers withhold some of their abilities there.
        '--host-resolver-rules=MAP workshop.example 127.0.0.1',
      ],
    },
  },
  webServer: [server('127.0.0.1', port, 'loopback'), server('127.0.0.1', doorPort, 'beyond')],
});
