import type { Metadata } from 'next';
import { currentActor, shown } from '@/app/session';
import { invoiceToPay } from '@/documents/services/read-document';
import { SheetPage } from '@/documents/ui/sheet-page';
import type { SubscriptionId } from '@/core/ids';

type Props = { params: Promise<{ subscriptionId: SubscriptionId }> };

export const metadata: Metadata = { title: 'To be paid', robots: { index: false } };

export default async function ToPayPage({ params }: Props) {
  const { subscriptionId } = await params;
  const sheet = await shown(invoiceToPay(await currentActor(), subscriptionId));
  const path = `/account/to-pay/${subscriptionId}`;
  return (
    <SheetPage sheet={sheet} back={{ href: '/account', words: 'Your account' }} pdfHref={`${path}/pdf`} />
  );
}
