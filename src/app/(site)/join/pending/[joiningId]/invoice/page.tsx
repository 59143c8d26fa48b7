import type { Metadata } from 'next';
import { currentActor, shown } from '@/app/session';
import { joiningToPay } from '@/services/pending-joining';
import { SheetPage } from '@/ui/sheet-page';

type Props = { params: Promise<{ joiningId: string }> };

export const metadata: Metadata = { title: 'To be paid', robots: { index: false } };

export default async function JoiningInvoicePage({ params }: Props) {
  const { joiningId } = await params;
  const sheet = await shown(joiningToPay(await currentActor(), joiningId));
  const path = `/join/pending/${joiningId}`;
  return <SheetPage sheet={sheet} back={{ href: path, words: 'Back' }} pdfHref={`${path}/invoice/pdf`} />;
}
