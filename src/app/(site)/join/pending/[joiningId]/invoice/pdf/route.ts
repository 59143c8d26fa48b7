import { currentActor } from '@/app/session';
import { pdf } from '@/app/sheet-pdf';
import { joiningToPayAsPdf } from '@/services/pending-joining';

type Context = { params: Promise<{ joiningId: string }> };

export async function GET(_: Request, { params }: Context): Promise<Response> {
  return pdf(await joiningToPayAsPdf(await currentActor(), (await params).joiningId));
}
