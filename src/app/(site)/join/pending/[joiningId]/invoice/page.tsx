import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { joiningToPay } from '@/services/invoice-to-pay';
import { SheetPage } from '@/ui/sheet-page';

type Props = { params: Promise<{ joiningId: string }> };

export const metadata: Metadata = { title: 'To be paid', robots: { index: false } };

export default async function JoiningInvoicePage({ params }: Props) {
  const path = `/join/pending/${(await params).joiningId}`;
  const sheet = await joiningToPay((await params).joiningId);
  if (!sheet) notFound();
  return <SheetPage sheet={sheet} back={{ href: path, words: 'Back' }} pdfHref={`${path}/invoice/pdf`} />;
}
