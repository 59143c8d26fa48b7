import { currentActor } from '@/app/session';
import { sheetPdf } from '@/app/sheet-pdf';
import { invoiceToPay } from '@/services/invoice-to-pay';

type Context = { params: Promise<{ subscriptionId: string }> };

export async function GET(_: Request, { params }: Context): Promise<Response> {
  const { subscriptionId } = await params;
  return sheetPdf(await invoiceToPay(await currentActor(), subscriptionId));
}
