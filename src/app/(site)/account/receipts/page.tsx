import type { Metadata } from 'next';
import { SiteLink } from '@/kit/site-link';
import { currentActor, shown, siteWords } from '@/app/session';
import { myDocuments } from '@/documents/services/read-document';
import { Empty } from '@/kit/empty';
import { ReceiptList } from '@/documents/ui/receipt-list';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('account.receipts'),
  robots: { index: false },
});

export default async function ReceiptsPage() {
  const t = await siteWords();
  const rows = await shown(myDocuments(await currentActor()));
  return (
    <div className="mx-auto w-full max-w-3xl px-5 py-12">
      <p>
        <SiteLink href="/account" className="text-spruce underline">
          {t('account.title')}
        </SiteLink>
      </p>
      <h1 className="mt-1 text-4xl">{t('account.receipts')}</h1>
      <div className="mt-6">
        {rows.length === 0 ? (
          <Empty title={t('account.receipts-empty')}>{t('account.receipts-empty-hint')}</Empty>
        ) : (
          <ReceiptList t={t} rows={rows} />
        )}
      </div>
    </div>
  );
}
