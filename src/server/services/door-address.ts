import 'server-only';
import { createConnection } from 'node:net';
import { networkInterfaces } from 'node:os';
import { environment } from '@/env/environment';

const LONGEST_WAIT_MS = 15_000;

/** The address that was set for others, else those of this machine in the shop's network; empty: not started with a door. */
export function doorAddresses(): readonly string[] {
  const { RED_PLUMB_DOOR_PORT: port, RED_PLUMB_URL: url } = environment();
  if (url !== undefined) return [url.replace(/\/$/, '')];
  if (port === undefined) return [];
  const numbers = Object.values(networkInterfaces())
    .flatMap((found) => found ?? [])
    .filter((a) => a.family === 'IPv4' && !a.internal)
    .map((a) => a.address);
  return [...new Set(numbers)].map((host) => `http://${host}:${port}`);
}

function answers(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = createConnection({ port, host: '127.0.0.1' });
    const end = (is: boolean) => () => {
      socket.destroy();
      resolve(is);
    };
    socket.on('connect', end(true));
    socket.on('error', end(false));
  });
}

/** Whether the door's port answers within a few seconds of being opened: the start command does that. */
export async function isDoorThrough(): Promise<boolean> {
  const port = environment().RED_PLUMB_DOOR_PORT;
  if (port === undefined) return false;
  for (let waitedMs = 0; waitedMs < LONGEST_WAIT_MS; waitedMs += 200) {
    if (await answers(port)) return true;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  return false;
}
