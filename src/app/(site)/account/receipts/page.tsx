import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, shown } from '@/app/session';
import { myDocuments } from '@/documents/services/read-document';
import { Empty } from '@/kit/empty';
import { ReceiptList } from '@/documents/ui/receipt-list';

export const metadata: Metadata = { title: 'Receipts', robots: { index: false } };

export default async function ReceiptsPage() {
  const rows = await shown(myDocuments(await currentActor()));
  return (
    <div className="mx-auto w-full max-w-3xl px-5 py-12">
      <p>
        <Link href="/account" className="text-spruce underline">
          Your account
        </Link>
      </p>
      <h1 className="mt-1 text-4xl">Receipts</h1>
      <div className="mt-6">
        {rows.length === 0 ? (
          <Empty title="Nothing yet">
            What you pay has its invoice here, to read, print or keep as a PDF.
          </Empty>
        ) : (
          <ReceiptList rows={rows} />
        )}
      </div>
    </div>
  );
}
