import type { Metadata } from 'next';
import { currentActor, shown, siteWords } from '@/app/session';
import { checkoutToPay } from '@/checkout/services/pending-checkout';
import { SheetPage } from '@/documents/ui/sheet-page';
import type { CheckoutId } from '@/core/ids';

type Props = { params: Promise<{ checkoutId: CheckoutId }> };

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('document.to-pay'),
  robots: { index: false },
});

export default async function CheckoutInvoicePage({ params }: Props) {
  const { checkoutId } = await params;
  const sheet = await shown(checkoutToPay(await currentActor(), checkoutId));
  const path = `/join/pending/${checkoutId}`;
  const t = await siteWords();
  return (
    <SheetPage
      t={t}
      sheet={sheet}
      back={{ href: path, words: t('pending.title') }}
      pdfHref={`${path}/invoice/pdf`}
    />
  );
}
