/** What is made piece by piece, as the body of an answer; where the reader leaves, nothing more is made. */
export function textStream(pieces: AsyncGenerator<string>): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    async pull(controller) {
      const next = await pieces.next();
      if (next.done) controller.close();
      else controller.enqueue(encoder.encode(next.value));
    },
    async cancel() {
      await pieces.return(undefined);
    },
  });
}
