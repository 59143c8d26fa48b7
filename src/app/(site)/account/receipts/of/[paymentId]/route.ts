import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { invoiceOfPayment } from '@/services/read-document';

/** Where a mail about a payment leads: its receipt, or the list where there is none. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ paymentId: string }> },
): Promise<Response> {
  const { paymentId } = await params;
  const actor = await currentActor();
  if (!actor.memberId) redirect(`/sign-in?to=${encodeURIComponent(`/account/receipts/of/${paymentId}`)}`);
  const document = await invoiceOfPayment(actor, paymentId);
  redirect(document ? `/account/receipts/${document.id}` : '/account/receipts');
}
