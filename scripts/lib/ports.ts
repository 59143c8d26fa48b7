import { createServer } from 'node:net';

function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

const given = new Set<number>();

/** The wanted port where nobody has it, else the next free one. */
export async function freePort(wanted: number): Promise<number> {
  for (let port = wanted; port < wanted + 500; port++) {
    if (!given.has(port) && (await isFree(port))) {
      given.add(port);
      return port;
    }
  }
  throw new Error(`no free port from ${wanted} to ${wanted + 500}`);
}
