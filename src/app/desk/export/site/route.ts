import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { currentActor, refusal } from '@/app/session';
import { slugify } from '@/core/content/slug';
import { exportSite, type ExportEntry } from '@/desk/services/export-site';

/** The whole site as a ZIP, written while it is read: nothing is held but the file that is on its way. */
export async function GET(): Promise<Response> {
  const exported = await exportSite(await currentActor());
  if (!exported.ok) return refusal(exported);
  const { name, entries } = exported.value;
  const zip = new ZipFile();
  void fill(zip, entries);
  return new Response(Readable.toWeb(zip.outputStream as Readable) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${slugify(name)}.zip"`,
    },
  });
}

/** Adds one file after the other, each once the one before it has gone. A failure ends the ZIP where it is: it cannot be opened. */
async function fill(zip: ZipFile, entries: AsyncGenerator<ExportEntry>): Promise<void> {
  const output = zip.outputStream as Readable;
  try {
    for await (const { path, bytes } of entries) {
      const stream = Readable.from(bytes());
      const isGone = new Promise<void>((resolve, reject) => {
        stream.once('end', resolve);
        stream.once('error', reject);
        output.once('close', resolve);
      });
      zip.addReadStream(stream, path);
      await isGone;
    }
    zip.end();
  } catch (error) {
    output.destroy(error instanceof Error ? error : new Error('the export failed'));
  }
}
