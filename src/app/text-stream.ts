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

/** Lines as a CSV file to be saved, written while they are read. `name` without its ending. */
export const csvAnswer = (name: string, lines: AsyncGenerator<string>): Response =>
  new Response(textStream(lines), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name}.csv"`,
      'cache-control': 'private, no-store',
    },
  });
