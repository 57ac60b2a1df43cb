import { createConnection, createServer } from 'node:net';

const LONGEST_WAIT_MS = 2000;

/** Whether something on this machine listens on a port. */
export function isPortOpen(port) {
  return new Promise((resolve) => {
    const socket = createConnection({ port, host: '127.0.0.1', timeout: LONGEST_WAIT_MS });
    const end = (isOpen) => () => {
      socket.destroy();
      resolve(isOpen);
    };
    socket.on('connect', end(true));
    socket.on('error', end(false));
    socket.on('timeout', end(false));
  });
}

/** A port that nothing listens on. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.on('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}
