import { currentActor } from '@/app/session';
import { sheetOf } from '@/core/documents';
import { documentPdf } from '@/services/document-pdf';
import { readDocument } from '@/services/read-document';
import { currentSite } from '@/services/site';

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const document = await readDocument(await currentActor(), id);
  if (!document) return new Response('There is no such document, or it is not yours.', { status: 404 });
  const pdf = await documentPdf(sheetOf(document, (await currentSite()).zone));
  return new Response(new Uint8Array(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="${document.label.replace(/[^A-Za-z0-9-]/g, '-')}.pdf"`,
      'cache-control': 'private, no-store',
    },
  });
}
