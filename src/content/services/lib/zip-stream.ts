import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';

/** One file of a ZIP; its bytes are read when they are asked for. */
export type ZipPart = { path: string; bytes: () => AsyncIterable<Uint8Array> };

/** A ZIP, written while it is read: nothing is held but the file that is on its way. */
export function zipStream(parts: AsyncIterable<ZipPart>): Readable {
  const zip = new ZipFile();
  void fill(zip, parts);
  return zip.outputStream as Readable;
}

/** Adds one file after the other, each once the one before it has gone. A failure ends the ZIP where it is: it cannot be opened. */
async function fill(zip: ZipFile, parts: AsyncIterable<ZipPart>): Promise<void> {
  const output = zip.outputStream as Readable;
  try {
    for await (const { path, bytes } of parts) {
      const stream = Readable.from(bytes());
      let leave = (): void => {};
      const isGone = new Promise<void>((resolve, reject) => {
        leave = resolve;
        stream.once('end', resolve);
        stream.once('error', reject);
        output.once('close', leave);
      });
      zip.addReadStream(stream, path);
      await isGone;
      output.off('close', leave);
    }
    zip.end();
  } catch (error) {
    output.destroy(error instanceof Error ? error : new Error('the ZIP could not be written'));
  }
}
