import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { sheetOf } from '@/core/documents';
import { readDocument } from '@/services/read-document';
import { currentSite } from '@/services/site';
import { SheetPage } from '@/ui/sheet-page';

type Props = { params: Promise<{ id: string }> };

export const metadata: Metadata = { title: 'Receipt', robots: { index: false } };

export default async function ReceiptPage({ params }: Props) {
  const { id } = await params;
  const actor = await currentActor();
  if (!actor.memberId) redirect(`/sign-in?to=${encodeURIComponent(`/account/receipts/${id}`)}`);
  const document = await readDocument(actor, id);
  if (!document) notFound();
  const { zone } = await currentSite();
  return (
    <SheetPage
      sheet={sheetOf(document, zone)}
      back={{ href: '/account/receipts', words: 'All receipts' }}
      pdfHref={`/account/receipts/${id}/pdf`}
    />
  );
}
