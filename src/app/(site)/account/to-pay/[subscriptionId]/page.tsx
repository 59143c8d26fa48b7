import type { Metadata } from 'next';
import { currentActor, shown, siteWords } from '@/app/session';
import { invoiceToPay } from '@/documents/services/read-document';
import { SheetPage } from '@/documents/ui/sheet-page';
import type { SubscriptionId } from '@/core/ids';

type Props = { params: Promise<{ subscriptionId: SubscriptionId }> };

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('document.to-pay'),
  robots: { index: false },
});

export default async function ToPayPage({ params }: Props) {
  const { subscriptionId } = await params;
  const sheet = await shown(invoiceToPay(await currentActor(), subscriptionId));
  const t = await siteWords();
  const path = `/account/to-pay/${subscriptionId}`;
  return (
    <SheetPage
      t={t}
      sheet={sheet}
      back={{ href: '/account', words: t('account.title') }}
      pdfHref={`${path}/pdf`}
    />
  );
}
