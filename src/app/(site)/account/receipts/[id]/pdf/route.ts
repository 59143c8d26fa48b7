import { currentActor } from '@/app/session';
import { sheetPdf } from '@/app/sheet-pdf';
import { sheetOf } from '@/core/documents';
import { readDocument } from '@/services/read-document';
import { currentSite } from '@/services/site';

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const document = await readDocument(await currentActor(), (await params).id);
  return sheetPdf(document && sheetOf(document, (await currentSite()).zone));
}
