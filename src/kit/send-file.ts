import { PIECE_BYTES } from '@/core/upload-bounds';
import { desk } from '@/words/desk';

/** What a use case answers to a file. */
export type Sent<T> = { ok: true; value: T } | { ok: false; problems: Record<string, string> };

/** Sends a file, or a text, to one of the Desk's upload addresses. A failure on the way comes back as a sentence. */
export async function sendFile<T>(path: string, file: Blob | string): Promise<Sent<T>> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      body: file,
      headers: { 'content-type': 'application/octet-stream' },
    });
    if (response.headers.get('content-type')?.includes('application/json'))
      return (await response.json()) as Sent<T>;
    return { ok: false, problems: { '': await response.text() } };
  } catch {
    return {
      ok: false,
      problems: { '': desk('desk-kit.file-not-sent') },
    };
  }
}

/** Sends one part of an upload, and once more where it was lost on the way. */
async function sendPart<T>(path: string, body: Blob | string): Promise<Sent<T>> {
  const first = await sendFile<T>(path, body);
  const isLost = !first.ok && first.problems[''] === desk('desk-kit.file-not-sent');
  return isLost ? sendFile<T>(path, body) : first;
}

/** Sends a large file in pieces, telling how much of it has arrived. The answer names the upload. */
export async function sendPieces(
  file: File,
  onShare: (share: number) => void,
  isImport = false,
): Promise<Sent<{ id: string }>> {
  const begun = await sendPart<{ id: string }>(
    '/desk/uploads/file',
    JSON.stringify({ name: file.name, size: file.size, isImport }),
  );
  if (!begun.ok) return begun;
  const { id } = begun.value;
  for (let start = 0, number = 0; start < file.size || number === 0; start += PIECE_BYTES, number++) {
    const sent = await sendPart(`/desk/uploads/file/${id}/${number}`, file.slice(start, start + PIECE_BYTES));
    if (!sent.ok) return sent;
    onShare(Math.min(1, (start + PIECE_BYTES) / Math.max(1, file.size)));
  }
  return begun;
}

/** Sends a file of the site: as a new item, or in place of the file of one. */
export async function sendInPieces(
  file: File,
  itemId: string | undefined,
  onShare: (share: number) => void,
): Promise<Sent<{ itemId: string; title: string }>> {
  const sent = await sendPieces(file, onShare);
  if (!sent.ok) return sent;
  return sendPart(`/desk/uploads/file/${sent.value.id}`, JSON.stringify({ itemId: itemId ?? '' }));
}
