import { createServer } from 'node:net';
import getPort, { portNumbers } from 'get-port';

/** Of the ports that may come up here, the one that browsers refuse to open (Fetch Standard, “bad port”). */
const REFUSED_BY_BROWSERS = 4190;

/**
 * A port of 127.0.0.1 that is free, the wanted one or a later one, held for as long as this process lives. It is held
 * against other runs by listening on the same port of 127.0.0.2: the kernel lets go of it however this process ends.
 */
export async function freePort(wanted: number): Promise<number> {
  for (;;) {
    const port = await getPort({
      port: portNumbers(wanted, wanted + 500),
      host: '127.0.0.1',
      exclude: [REFUSED_BY_BROWSERS],
      reserve: true,
    });
    if (await hold(port)) return port;
  }
}

function hold(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer().unref();
    server.once('error', () => resolve(false));
    server.listen({ port, host: '127.0.0.2', exclusive: true }, () => resolve(true));
  });
}
