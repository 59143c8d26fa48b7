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
