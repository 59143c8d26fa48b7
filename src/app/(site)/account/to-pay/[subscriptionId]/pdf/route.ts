import { currentActor } from '@/app/session';
import { pdf } from '@/app/sheet-pdf';
import { invoiceToPayAsPdf } from '@/documents/services/read-document';
import type { SubscriptionId } from '@/core/ids';

type Context = { params: Promise<{ subscriptionId: SubscriptionId }> };

export async function GET(_: Request, { params }: Context): Promise<Response> {
  return pdf(await invoiceToPayAsPdf(await currentActor(), (await params).subscriptionId));
}
