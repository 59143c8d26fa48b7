import { SiteLinkButton } from '@/kit/site-link';
import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentActor, shown, siteWords } from '@/app/session';
import { pendingCheckout } from '@/checkout/services/pending-checkout';
import { KeyGlyph } from '@/kit/key-cut';
import { CopyText } from '@/kit/copy-text';
import { AskAgain } from '@/checkout/ui/ask-again';
import type { CheckoutId } from '@/core/ids';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('pending.title'),
  robots: { index: false },
});

/** A checkout that waits for its payer: to send a transfer, or to approve at the wallet. */
export default async function PendingPage({ params }: { params: Promise<{ checkoutId: CheckoutId }> }) {
  const { checkoutId } = await params;
  const t = await siteWords();
  const { state, lastProblem, tier, transfer, approveUrl, offerId } = await shown(
    pendingCheckout(await currentActor(), checkoutId),
  );
  if (state === 'done') redirect(`/join/done/${checkoutId}`);
  const again = `/join/${offerId}`;
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      {tier && <KeyGlyph cut={tier.keyCut} size={34} />}
      {transfer ? (
        <>
          <h1 className="mt-4 text-4xl">{t('pending.transfer')}</h1>
          <p className="mt-3 text-lg">{t('pending.transfer-hint', { tier: tier?.name ?? '' })}</p>
          <dl className="figures mt-6 rounded-xl border border-line bg-surface p-6">
            {[
              [t('pending.amount'), t.money(transfer.amount, transfer.currency)],
              [t('pending.to'), transfer.payee],
              [t('pending.account'), transfer.account],
              ...(transfer.bank ? [[t('pending.bank'), transfer.bank]] : []),
              [t('pending.by'), t.date(transfer.until)],
            ].map(([name, value]) => (
              <div key={name} className="flex justify-between gap-4 border-t border-line py-2 first:border-0">
                <dt className="text-muted">{name}</dt>
                <dd className="text-right font-semibold">{value}</dd>
              </div>
            ))}
            <div className="mt-2 border-t border-line pt-3">
              <dt className="text-muted">{t('pending.reference')}</dt>
              <dd className="mt-1 font-mono text-2xl font-semibold tracking-wider">
                <CopyText
                  text={transfer.reference}
                  label={t('form.copy', { name: t('pending.reference-name') })}
                  copied={t('form.copied')}
                />
              </dd>
            </div>
          </dl>
          <p className="mt-4 text-muted">{t('pending.in-mail')}</p>
          <div className="mt-6 flex flex-wrap gap-3">
            <SiteLinkButton href={`/join/pending/${checkoutId}/invoice`} look="quiet">
              {t('pending.invoice')}
            </SiteLinkButton>
            <SiteLinkButton href={again} look="quiet">
              {t('pending.other-method')}
            </SiteLinkButton>
          </div>
        </>
      ) : approveUrl ? (
        <>
          <h1 className="mt-4 text-4xl">{t('pending.wallet')}</h1>
          <p className="mt-3 text-lg">{lastProblem ? t.problem(lastProblem) : t('pending.wallet-hint')}</p>
          <AskAgain path={`/join/approved/${checkoutId}`} />
          <div className="mt-6 flex flex-wrap gap-3">
            <SiteLinkButton href={approveUrl}>{t('pending.to-wallet')}</SiteLinkButton>
            <SiteLinkButton href={again} look="quiet">
              {t('pending.other-method')}
            </SiteLinkButton>
          </div>
        </>
      ) : (
        <>
          <h1 className="mt-4 text-4xl">{t('pending.none')}</h1>
          <p className="mt-3 text-lg">{lastProblem ? t.problem(lastProblem) : t('pending.none-hint')}</p>
          <SiteLinkButton href={again} className="mt-6">
            {t('pending.again')}
          </SiteLinkButton>
        </>
      )}
    </div>
  );
}
