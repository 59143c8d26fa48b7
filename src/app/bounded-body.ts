import 'server-only';

/** The bytes of a request's body, measured while they are read: more than `most`, and the reading stops with a 413. */
export async function boundedBytes(request: Request, most: number): Promise<Uint8Array | Response> {
  const chunks: Uint8Array[] = [];
  let length = 0;
  if (request.body) {
    const reader: ReadableStreamDefaultReader<Uint8Array> = request.body.getReader();
    for (let read = await reader.read(); !read.done; read = await reader.read()) {
      length += read.value.byteLength;
      if (length > most) {
        void readAway(reader);
        return new Response('This is more than can be sent here.', { status: 413 });
      }
      chunks.push(read.value);
    }
  }
  return Buffer.concat(chunks);
}

/** What is still on its way is read away for a moment: closed at once, the connection would take the answer with it. */
async function readAway(reader: ReadableStreamDefaultReader<Uint8Array>): Promise<void> {
  const end = performance.now() + 1_000;
  try {
    while (performance.now() < end && !(await reader.read()).done);
    await reader.cancel();
  } catch {
    // The sender has left.
  }
}

export async function boundedText(request: Request, most: number): Promise<string | Response> {
  const bytes = await boundedBytes(request, most);
  return bytes instanceof Response ? bytes : Buffer.from(bytes).toString('utf8');
}

/** A form as browsers send it. What is none is answered with a 400. */
export async function boundedForm(request: Request, most: number): Promise<FormData | Response> {
  const bytes = await boundedBytes(request, most);
  if (bytes instanceof Response) return bytes;
  try {
    return await new Response(new Uint8Array(bytes), { headers: request.headers }).formData();
  } catch {
    return new Response('This is no form.', { status: 400 });
  }
}
