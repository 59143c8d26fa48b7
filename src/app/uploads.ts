import 'server-only';
import { boundedBytes } from '@/app/bounded-body';
import { isSameOrigin } from '@/app/same-origin';
import { STATUS } from '@/app/session';
import type { Result } from '@/platform/result';
import { currentWords } from '@/app/session';

/**
 * Takes a file that was chosen on a page of ours. It comes as the body by itself and is measured while it is read; the
 * answer is what the use case answers, as JSON, with a sentence for each problem.
 */
export async function upload<T>(
  request: Request,
  most: number,
  take: (bytes: Uint8Array) => Promise<Result<T>>,
): Promise<Response> {
  if (!isSameOrigin(request))
    return new Response('Refused: the request came from another site.', { status: 403 });
  const bytes = await boundedBytes(request, most);
  if (bytes instanceof Response) return bytes;
  const taken = await take(bytes);
  if (taken.ok) return Response.json(taken);
  const said = { ok: false, problems: (await currentWords()).problems(taken.problems) };
  return Response.json(said, { status: STATUS[taken.code ?? 'invalid'] });
}

/** The same for what comes as JSON, which the use case parses. */
export async function uploadJson<T>(
  request: Request,
  take: (input: unknown) => Promise<Result<T>>,
  most = 10_000,
): Promise<Response> {
  return upload(request, most, (bytes) => {
    let input: unknown;
    try {
      input = JSON.parse(Buffer.from(bytes).toString('utf8'));
    } catch {
      // The use case says that it is none.
    }
    return take(input);
  });
}
