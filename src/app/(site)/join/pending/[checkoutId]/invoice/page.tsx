import type { Metadata } from 'next';
import { currentActor, shown } from '@/app/session';
import { checkoutToPay } from '@/checkout/services/pending-checkout';
import { SheetPage } from '@/documents/ui/sheet-page';
import type { CheckoutId } from '@/core/ids';

type Props = { params: Promise<{ checkoutId: CheckoutId }> };

export const metadata: Metadata = { title: 'To be paid', robots: { index: false } };

export default async function JoiningInvoicePage({ params }: Props) {
  const { checkoutId } = await params;
  const sheet = await shown(checkoutToPay(await currentActor(), checkoutId));
  const path = `/join/pending/${checkoutId}`;
  return <SheetPage sheet={sheet} back={{ href: path, words: 'Back' }} pdfHref={`${path}/invoice/pdf`} />;
}
