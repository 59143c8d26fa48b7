import { Readable } from 'node:stream';
import { currentActor, refusal } from '@/app/session';
import { zipStream } from '@/content/services/lib/zip-stream';
import { slugify } from '@/core/content/slug';
import { exportSite } from '@/desk/services/export-site';

/** The whole site as a ZIP, written while it is read. */
export async function GET(): Promise<Response> {
  const exported = await exportSite(await currentActor());
  if (!exported.ok) return refusal(exported);
  const { name, entries } = exported.value;
  return new Response(Readable.toWeb(zipStream(entries)) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${slugify(name)}.zip"`,
    },
  });
}
