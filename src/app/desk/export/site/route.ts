import { Readable } from 'node:stream';
import { currentActor, refusal } from '@/app/session';
import { slugify } from '@/core/content/slug';
import { exportSite } from '@/desk/services/export-site';

/** The whole site as a ZIP, written while it is read. */
export async function GET(): Promise<Response> {
  const exported = await exportSite(await currentActor());
  if (!exported.ok) return refusal(exported);
  const { name, zip } = exported.value;
  return new Response(Readable.toWeb(zip()) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${slugify(name)}.zip"`,
    },
  });
}
