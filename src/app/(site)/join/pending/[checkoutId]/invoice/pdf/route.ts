import { currentActor } from '@/app/session';
import { pdf } from '@/app/sheet-pdf';
import { checkoutToPayAsPdf } from '@/checkout/services/pending-checkout';
import type { CheckoutId } from '@/core/ids';

type Context = { params: Promise<{ checkoutId: CheckoutId }> };

export async function GET(_: Request, { params }: Context): Promise<Response> {
  return pdf(await checkoutToPayAsPdf(await currentActor(), (await params).checkoutId));
}
