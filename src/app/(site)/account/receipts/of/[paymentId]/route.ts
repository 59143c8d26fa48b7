import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { invoiceOfPayment } from '@/documents/services/read-document';
import type { PaymentId } from '@/core/ids';

type Context = { params: Promise<{ paymentId: PaymentId }> };

/** Where a mail about a payment leads: its receipt, or the list where there is none. */
export async function GET(_: Request, { params }: Context): Promise<Response> {
  const { paymentId } = await params;
  const invoice = await invoiceOfPayment(await currentActor(), paymentId);
  if (!invoice.ok && invoice.code === 'sign-in')
    redirect(`/sign-in?to=${encodeURIComponent(`/account/receipts/of/${paymentId}`)}`);
  redirect(invoice.ok ? `/account/receipts/${invoice.value}` : '/account/receipts');
}
