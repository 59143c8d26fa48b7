import type { Metadata } from 'next';
import { currentActor, shown } from '@/app/session';
import { readDocument } from '@/documents/services/read-document';
import { SheetPage } from '@/documents/ui/sheet-page';

type Props = { params: Promise<{ id: string }> };

export const metadata: Metadata = { title: 'Receipt', robots: { index: false } };

export default async function ReceiptPage({ params }: Props) {
  const { id } = await params;
  return (
    <SheetPage
      sheet={await shown(readDocument(await currentActor(), id))}
      back={{ href: '/account/receipts', words: 'All receipts' }}
      pdfHref={`/account/receipts/${id}/pdf`}
    />
  );
}
