import { createServer } from 'node:http';
import type { Socket } from 'node:net';
import { parseArgs } from 'node:util';
import next from 'next';
import { configOrExit } from '@/platform/config';
import { logOf } from '@/platform/log';
import { closePools } from '@/platform/store/db';
import { admit } from './admit';
import { FAILURE_HEADERS, failurePage, replaceFailedPages } from './failure-page';
import { finishHeaders } from './headers';
import { NO_PAGE, pathOf, setPolicy } from './policy';
import { pathForLog } from './path-for-log';
import { answering, type InHand } from '@/platform/request';
import { alikeWith } from './alike';
import { answerAsBefore, gather } from './shared-answers';

const { TRUSTED_PROXIES, SITE_URL, PORT, RUN_TOKEN, CURLEW_CARDS_URL } = configOrExit();
/** The card form is a page of the gateway's, framed at checkout. */
const FRAMES = [new URL(CURLEW_CARDS_URL).origin];
const log = logOf('web');
const { values } = parseArgs({
  options: {
    host: { type: 'string', default: '127.0.0.1' },
    port: { type: 'string', default: String(PORT) },
  },
});
const port = Number(values.port);

const app = next({ dev: false, hostname: values.host, port });
await app.prepare();
const handle = app.getRequestHandler();

const server = createServer((request, response) => {
  const started = performance.now();
  const admitted = admit(request, TRUSTED_PROXIES);
  const { id } = admitted;
  const inHand: InHand = { isTakenUp: false, isUnreadable: false, share: {} };
  const policy = admitted.ok ? setPolicy(request, FRAMES) : { value: NO_PAGE, nonce: null };
  finishHeaders(response, {
    id,
    isHttps: SITE_URL.startsWith('https:'),
    policy: policy.value,
    path: pathOf(request),
    runToken: RUN_TOKEN,
    request: inHand,
  });
  const acceptLanguage = request.headers['accept-language'];
  replaceFailedPages(response, id, acceptLanguage);
  response.once('close', () => {
    const isAsset = request.url?.startsWith('/_next/') ?? false;
    log[isAsset ? 'debug' : 'info'](
      {
        request: id,
        method: request.method,
        path: pathForLog(request.url ?? ''),
        status: response.statusCode,
        ms: Math.round(performance.now() - started),
        ...(!response.writableFinished && { cut: true }),
      },
      'answered',
    );
  });
  if (!admitted.ok) {
    response.writeHead(admitted.status, { 'content-type': 'text/plain; charset=utf-8', ...admitted.headers });
    response.end(admitted.words);
    // What is still on its way is read away for a moment, or the answer would be lost with the connection.
    request.resume();
    setTimeout(() => request.complete || request.destroy(), 1_000).unref();
    return;
  }
  const answer = async (): Promise<void> => {
    const { nonce } = policy;
    const alike = nonce === null ? null : await alikeWith(request, inHand);
    if (nonce !== null && alike !== null) {
      if (await answerAsBefore(request, response, { alike, inHand })) return;
      gather(request, response, { nonce, frames: FRAMES, alike, inHand });
    }
    await handle(request, response);
  };
  answering(inHand, answer).catch((error: unknown) => {
    log.error({ err: error, request: id }, 'a request failed');
    if (response.headersSent) return response.destroy();
    response.writeHead(500, FAILURE_HEADERS);
    response.end(failurePage(id, acceptLanguage));
  });
});
// A request has half a minute to arrive; its answer may take longer.
server.requestTimeout = 30_000;
server.headersTimeout = 10_000;
server.on('clientError', (error: NodeJS.ErrnoException, socket) => {
  // A browser opens connections ahead: one on which it has asked nothing yet must not have an answer waiting.
  const isTooLate = error.code === 'ERR_HTTP_REQUEST_TIMEOUT';
  if (!socket.writable || (isTooLate && (socket as Socket).bytesRead === 0)) return void socket.destroy();
  socket.end(
    `HTTP/1.1 ${isTooLate ? '408 Request Timeout' : '400 Bad Request'}\r\nconnection: close\r\n\r\n`,
  );
});

server.listen(port, values.host, () => log.info({ host: values.host, port }, 'web started'));
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => {
    server.close(() => void closePools().finally(() => process.exit(0)));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 3_000).unref();
  });
