import 'server-only';
import { refusal } from '@/app/session';
import type { OpenFile } from '@/access/services/open-file';
import { isShownInBrowser } from '@/core/content/media';
import type { Result } from '@/platform/result';

/**
 * The bytes of a file, or the part of them that Range asks for (RFC 9110); what comes is never run as a page of ours,
 * whatever it holds. `open` asks the rules.
 */
export async function fileAnswer(
  request: Request,
  open: (range: string | null) => Promise<Result<OpenFile>>,
): Promise<Response> {
  const opened = await open(request.headers.get('range')?.slice(0, 200) ?? null);
  if (!opened.ok) return refusal(opened);
  const { file, bytes, range } = opened.value;
  const etag = `"${file.sha256}"`;
  // Part of another version is of no use to those who have the beginning of this one.
  const ifRange = request.headers.get('if-range');
  if (ifRange && ifRange !== etag && range !== undefined) {
    const whole = await open(null);
    return whole.ok ? answer(whole.value.file, etag, undefined, whole.value.bytes) : refusal(whole);
  }
  if (request.headers.get('if-none-match') === etag)
    return new Response(null, { status: 304, headers: { etag } });
  if (range === null)
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${file.size}` } });
  return answer(file, etag, range, bytes);
}

function answer(
  file: { name: string; mediaType: string; size: number },
  etag: string,
  range: { first: number; last: number } | undefined,
  bytes: () => AsyncGenerator<Uint8Array>,
): Response {
  const length = range ? range.last - range.first + 1 : file.size;
  const how = isShownInBrowser(file.mediaType) ? 'inline' : 'attachment';
  return new Response(streamOf(bytes()), {
    status: range ? 206 : 200,
    headers: {
      'content-type': file.mediaType,
      'content-length': String(length),
      'content-disposition': `${how}; filename="${plain(file.name)}"; filename*=UTF-8''${encodeURIComponent(file.name)}`,
      'accept-ranges': 'bytes',
      'cache-control': 'private, no-cache',
      'content-security-policy': policyOf(file.mediaType),
      etag,
      ...(range && { 'content-range': `bytes ${range.first}-${range.last}/${file.size}` }),
    },
  });
}

/** A name for those who read only ASCII: RFC 6266. */
const plain = (name: string): string => name.replace(/[^\x20-\x7e]|["\\]/g, '_');

/** One piece at a time, as fast as it is taken. */
function streamOf(pieces: AsyncGenerator<Uint8Array>): ReadableStream<Uint8Array> {
  return new ReadableStream({
    async pull(controller) {
      const next: IteratorResult<Uint8Array> = await pieces.next();
      if (next.done) controller.close();
      else controller.enqueue(next.value);
    },
    async cancel() {
      await pieces.return(undefined);
    },
  });
}

/** Nothing that a file holds is run or fetched. What shows PDFs is the browser's own, and refuses to work in a sandbox. */
const policyOf = (mediaType: string): string =>
  mediaType === 'application/pdf'
    ? "default-src 'none'; style-src 'unsafe-inline'; object-src 'self'; frame-ancestors 'none'"
    : "default-src 'none'; media-src 'self'; frame-ancestors 'none'; sandbox";
