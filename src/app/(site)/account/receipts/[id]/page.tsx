import type { Metadata } from 'next';
import { currentActor, shown, siteWords } from '@/app/session';
import { readDocument } from '@/documents/services/read-document';
import { SheetPage } from '@/documents/ui/sheet-page';

type Props = { params: Promise<{ id: string }> };

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('document.receipt'),
  robots: { index: false },
});

export default async function ReceiptPage({ params }: Props) {
  const { id } = await params;
  const t = await siteWords();
  return (
    <SheetPage
      t={t}
      sheet={await shown(readDocument(await currentActor(), id))}
      back={{ href: '/account/receipts', words: t('account.all-receipts') }}
      pdfHref={`/account/receipts/${id}/pdf`}
    />
  );
}
