import { connect, createServer } from 'node:net';

/** Passes on what comes to a port, and counts how often the other side is asked after it has answered: the round trips. */
export function countingProxy(port: number, to: { host: string; port: number }) {
  let trips = 0;
  const server = createServer((client) => {
    const database = connect(to);
    let isAnswered = true;
    client.on('data', (asked) => {
      if (isAnswered) trips++;
      isAnswered = false;
      database.write(asked);
    });
    database.on('data', (answer) => {
      isAnswered = true;
      client.write(answer);
    });
    const end = (): void => {
      client.destroy();
      database.destroy();
    };
    for (const socket of [client, database]) socket.on('close', end).on('error', end);
  });
  server.listen(port, '127.0.0.1');
  return { count: (): number => trips, close: (): void => void server.close() };
}
