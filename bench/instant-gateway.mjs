/** A card gateway that answers every charge at once, on a thread of its own: its work is not the worker's. */
import { createServer } from 'node:http';
import { parentPort } from 'node:worker_threads';

let charges = 0;
const server = createServer((request, response) => {
  const chunks = [];
  request.on('data', (chunk) => chunks.push(chunk));
  request.on('end', () => {
    const asked = JSON.parse(Buffer.concat(chunks).toString() || '{}');
    charges += 1;
    response.writeHead(201, { 'content-type': 'application/json' }).end(
      JSON.stringify({
        id: `pay_${charges}`,
        key: request.headers['idempotency-key'],
        agreement: null,
        state: 'succeeded',
        code: null,
        amount: asked.amount,
        currency: asked.currency,
        at: new Date().toISOString(),
        refunds: [],
        dispute: null,
      }),
    );
  });
});
server.listen(0, '127.0.0.1', () => parentPort.postMessage({ port: server.address().port }));
parentPort.on('message', () => parentPort.postMessage({ charges }));
