import { currentActor } from '@/app/session';
import { pdf } from '@/app/sheet-pdf';
import { documentAsPdf } from '@/documents/services/read-document';

type Context = { params: Promise<{ id: string }> };

export async function GET(_: Request, { params }: Context): Promise<Response> {
  return pdf(await documentAsPdf(await currentActor(), (await params).id));
}
