import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { invoiceToPay } from '@/services/invoice-to-pay';
import { SheetPage } from '@/ui/sheet-page';

type Props = { params: Promise<{ subscriptionId: string }> };

export const metadata: Metadata = { title: 'To be paid', robots: { index: false } };

export default async function ToPayPage({ params }: Props) {
  const { subscriptionId } = await params;
  const path = `/account/to-pay/${subscriptionId}`;
  const actor = await currentActor();
  if (!actor.memberId) redirect(`/sign-in?to=${encodeURIComponent(path)}`);
  const sheet = await invoiceToPay(actor, subscriptionId);
  if (!sheet) notFound();
  return (
    <SheetPage sheet={sheet} back={{ href: '/account', words: 'Your account' }} pdfHref={`${path}/pdf`} />
  );
}
