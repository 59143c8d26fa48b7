import type { Instrumentation } from 'next';

/** Runs once before the first request: a wrong environment stops the start with a sentence. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { configOrExit } = await import('./platform/config');
  configOrExit();
}

/** Every error of a page, a route or an action, with its cause and the id of its request. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  const { logOf } = await import('./platform/log');
  const { pathForLog } = await import('./web/path-for-log');
  const { noteFailedAction } = await import('./platform/request');
  const isTheirs = context.routeType === 'action' && noteFailedAction(error);
  logOf('web')[isTheirs ? 'warn' : 'error'](
    {
      err: error,
      request: String(request.headers['x-request-id'] ?? ''),
      digest: (error as { digest?: string }).digest,
      method: request.method,
      path: pathForLog(request.path),
      kind: context.routeType,
    },
    isTheirs ? 'a form could not be read' : 'a page or an action failed',
  );
};
