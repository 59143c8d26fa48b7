import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound, redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { sheetOf } from '@/core/documents';
import { readDocument } from '@/services/read-document';
import { currentSite } from '@/services/site';
import { DocumentSheet } from '@/ui/document-sheet';
import { buttonClass } from '@/ui/kit/button';
import { PrintButton } from '@/ui/print-button';

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
    <div className="mx-auto w-full max-w-3xl px-5 py-10 print:p-0">
      <div className="mb-5 flex flex-wrap items-center gap-3 print:hidden">
        <Link href="/account/receipts" className="mr-auto text-spruce underline">
          All receipts
        </Link>
        <PrintButton />
        <a href={`/account/receipts/${id}/pdf`} download className={buttonClass('quiet')}>
          Download as PDF
        </a>
      </div>
      <DocumentSheet sheet={sheetOf(document, zone)} />
    </div>
  );
}
