import 'server-only';
import type { Sheet } from '@/core/documents';
import { documentPdf } from '@/services/document-pdf';

/** A document as a PDF to keep; null where there is none that this person may read. */
export async function sheetPdf(sheet: Sheet | null): Promise<Response> {
  if (!sheet) return new Response('There is no such document, or it is not yours.', { status: 404 });
  return new Response(new Uint8Array(await documentPdf(sheet)), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="${sheet.label.replace(/[^A-Za-z0-9-]/g, '-')}.pdf"`,
      'cache-control': 'private, no-store',
    },
  });
}
