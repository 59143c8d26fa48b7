import { createServer, type Server } from 'node:net';

/** What this process has claimed; the kernel lets go of it when the process ends, however it ends. */
const claims = new Map<number, Server>();

/** Of the ports that may come up here, the one that browsers refuse to open (Fetch Standard, “bad port”). */
const REFUSED_BY_BROWSERS = 4190;

function listen(port: number, host: string): Promise<Server | null> {
  return new Promise((resolve) => {
    const server = createServer().unref();
    server.once('error', () => resolve(null));
    server.listen({ port, host, exclusive: true }, () => resolve(server));
  });
}

/**
 * A port of 127.0.0.1 that is free, the wanted one or the next, held for as long as this process lives.
 * It is held by listening on the same port of 127.0.0.2: between looking and using, no other run can choose it.
 * @throws where none of the next 500 is free
 */
export async function freePort(wanted: number): Promise<number> {
  for (let port = wanted; port < wanted + 500; port++) {
    const claim = claims.has(port) || port === REFUSED_BY_BROWSERS ? null : await listen(port, '127.0.0.2');
    if (!claim) continue;
    claims.set(port, claim);
    const probe = await listen(port, '127.0.0.1');
    if (probe) {
      await new Promise((resolve) => probe.close(resolve));
      return port;
    }
    claims.delete(port);
    claim.close();
  }
  throw new Error(`no free port from ${wanted} to ${wanted + 500}`);
}
