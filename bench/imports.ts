/**
 * How long an import takes, and how much memory the process that does it holds. npm run bench -- imports [how many posts]
 */
import { benchSite } from './lib/site';

const WORDS =
  'the ford was frozen and the moor lay quiet under a thin moon while the dome turned slowly to the east'.split(
    ' ',
  );

/** An export of another site, a piece at a time: posts of some four thousand characters. */
function* feed(count: number): Generator<Buffer> {
  yield Buffer.from('<rss version="2.0"><channel><title>Hill</title>');
  for (let n = 1; n <= count; n++) {
    const words = Array.from({ length: 700 }, (_, i) => WORDS[(i * 7 + n) % WORDS.length]).join(' ');
    const date = new Date(Date.UTC(2012, 0, 1) + n * 86_400_000).toUTCString();
    yield Buffer.from(
      `<item><title>Night ${n}</title><link>https://hill.example/d/night-${n}/</link><pubDate>${date}</pubDate>` +
        `<category>nights</category><content:encoded><![CDATA[<h2>Sky</h2><p>${words}</p>]]></content:encoded></item>`,
    );
  }
  yield Buffer.from('</channel></rss>');
}

export async function run(args: string[]): Promise<void> {
  const count = Number(args[0] ?? 5000);
  const site = await benchSite('http://127.0.0.1:9');
  try {
    const { beginUpload, takePiece } = await import('../src/content/services/upload-file');
    const { importStep } = await import('../src/desk/services/import-site');
    type Step = Awaited<ReturnType<typeof importStep>>;
    const { SETUP } = await import('../src/platform/actor');
    const { PIECE_BYTES } = await import('../src/core/upload-bounds');
    const bytes = Buffer.concat([...feed(count)]);
    const begun = await beginUpload(SETUP, { name: 'feed.xml', size: bytes.length, isImport: true });
    if (!begun.ok) throw new Error('the upload was refused');
    for (let number = 0; number * PIECE_BYTES < bytes.length; number++)
      await takePiece(SETUP, {
        id: begun.value.id,
        number,
        bytes: new Uint8Array(bytes.subarray(number * PIECE_BYTES, (number + 1) * PIECE_BYTES)),
      });
    console.log(`${count} posts, ${(bytes.length / 1e6).toFixed(1)} MB`);
    for (const [name, isDry] of [
      ['looked through', true],
      ['brought in', false],
      ['again', false],
    ] as const) {
      let [uploadId, longest, most] = [begun.value.id, 0, 0];
      const started = performance.now();
      const sorts = new Map<string, number>();
      for (let from: number | null = 0; from !== null;) {
        const before = performance.now();
        const step: Step = await importStep(SETUP, { uploadId, from, isDry });
        if (!step.ok) throw new Error(JSON.stringify(step.problems));
        for (const { is } of step.value.lines) sorts.set(is, (sorts.get(is) ?? 0) + 1);
        ({ uploadId, next: from } = step.value);
        longest = Math.max(longest, performance.now() - before);
        most = Math.max(most, process.memoryUsage().rss);
      }
      const told = [...sorts].map(([is, n]) => `${n} ${is}`).join(', ');
      console.log(
        `  ${name}: ${((performance.now() - started) / 1000).toFixed(0)} s, longest step ${(longest / 1000).toFixed(1)} s, ${(most / 1e6).toFixed(0)} MB held; ${told}`,
      );
    }
  } finally {
    await site.close();
  }
}
