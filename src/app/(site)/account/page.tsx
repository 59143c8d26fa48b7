import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import type { Metadata } from 'next';
import { Fragment, type ReactNode } from 'react';
import { currentActor, shown, siteWords } from '@/app/session';
import { signOutAction } from '@/app/sign-in-action';
import type { SectionId } from '@/core/account-sections';
import { declineProblem } from '@/billing/gateways/contract';
import { methodWords } from '@/words/methods';
import type { Words } from '@/words/words';
import { panelsOf } from '@/app/panels';
import { isEmpty } from '@/core/content/prose';
import { myAccount } from '@/members/services/my-account';
import { Button } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { LifeMark } from '@/kit/state-mark';
import { SubscriptionCard } from '@/billing/ui/subscription-card';
import { ReceiptList } from '@/documents/ui/receipt-list';
import { RichText } from '@/content/ui/rich-text';
import {
  cancelAction,
  pauseAction,
  payOwedAction,
  resumeAction,
  undoCancelAction,
  undoSwitchAction,
} from './actions';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: (await siteWords())('account.title'),
  robots: { index: false },
});

const ACTIONS = {
  undoSwitch: undoSwitchAction,
  cancel: cancelAction,
  undo: undoCancelAction,
  pause: pauseAction,
  resume: resumeAction,
  pay: payOwedAction,
};

/** The member's own account: its sections are in order, and on or off, as the owner arranged them. */
export default async function AccountPage() {
  const mine = await shown(myAccount(await currentActor()));
  const { account, ways, forHolder, notes, order, receipts, hasPurchases } = mine;
  const { payments } = account;
  const t = await siteWords();
  // What was switched away from has its successor beside it; only the end of the line is shown.
  const subscriptions = account.subscriptions.filter(
    ({ subscription }, index, all) =>
      subscription.state !== 'ended' ||
      !all.slice(0, index).some((other) => other.subscription.track === subscription.track),
  );
  const sections: Record<SectionId, ReactNode> = {
    notes: notes.length > 0 && (
      <section aria-label={t('account.notes')} className="mt-10">
        <h2 className="text-2xl">{t('account.notes')}</h2>
        <ul className="mt-3 grid gap-3">
          {notes.map((note) => (
            <li key={note.id} className="rounded-xl border border-line bg-surface p-5">
              <p className="whitespace-pre-line">{note.words}</p>
              <p className="mt-2 text-[0.9375rem] text-muted">
                {note.staffName ? `${note.staffName}, ` : ''}
                {t.date(note.at)}
              </p>
            </li>
          ))}
        </ul>
      </section>
    ),
    held: (
      <>
        <h2 className="mt-10 text-2xl">{t('account.tiers')}</h2>
        {account.credit.map(({ currency, amount }) => (
          <p key={currency} className="figures mt-2 text-open">
            {t('account.credit', { amount: t.money(amount, currency) })}
          </p>
        ))}
        <div className="mt-4 grid gap-4">
          {subscriptions.length === 0 && (
            <Empty
              title={t('account.empty')}
              action={<SiteLinkButton href="/join">{t('signin.how-to-join')}</SiteLinkButton>}
            >
              {t('account.empty-hint')}
            </Empty>
          )}
          {subscriptions.map(
            ({
              subscription,
              tier,
              offer,
              sentence,
              next,
              movesTo,
              transfer,
              deeds,
              isKept,
              needsApproval,
            }) => (
              <SubscriptionCard
                // A question that was open belongs to the state it was asked in.
                key={`${subscription.id}:${subscription.state}:${String(subscription.pauses)}`}
                t={t}
                id={subscription.id}
                name={tier?.name ?? offer.name}
                keyCut={tier?.keyCut ?? null}
                state={subscription.state}
                sentence={sentence}
                method={
                  offer.isPaid && subscription.methodLabel ? methodWords(subscription.methodLabel, t) : null
                }
                next={next && { date: t.date(next.at), amount: nextWords(next, t) }}
                until={subscription.paidThrough && t.until(subscription.paidThrough)}
                ended={subscription.endedAt && t.date(subscription.endedAt)}
                isForGood={isKept}
                isPaid={offer.isPaid}
                ways={ways.get(subscription.id)}
                movesTo={
                  movesTo && {
                    isOwn: movesTo.isOwn,
                    name: movesTo.tier?.name ?? movesTo.name,
                    sentence: movesTo.sentence,
                    date: subscription.paidThrough ? t.date(subscription.paidThrough) : '',
                  }
                }
                pauses={subscription.pauses}
                isDisputed={subscription.disputes.length > 0}
                deeds={deeds}
                needsApproval={needsApproval}
                transfer={
                  transfer && {
                    amount: t.money(transfer.amount, transfer.currency),
                    reference: transfer.reference,
                    payee: transfer.payee,
                    account: transfer.account,
                  }
                }
                actions={ACTIONS}
              />
            ),
          )}
        </div>
        {forHolder.length > 0 && (
          <section aria-label={t('account.for-you')} className="mt-8">
            <h2 className="text-2xl">{t('account.for-you')}</h2>
            <ul className="mt-3 divide-y divide-line border-y border-line">
              {forHolder.map((one) => (
                <li key={one.href} className="flex flex-wrap items-center justify-between gap-3 py-3">
                  <div className="min-w-0 flex-1 basis-56">
                    <p className="font-semibold [overflow-wrap:anywhere]">{one.name}</p>
                    <p className="figures text-[0.9375rem] text-muted">
                      {t('account.for-you-price', {
                        amount: t.money(one.amount, one.currency),
                        usual: t.money(one.usual, one.currency),
                        tier: one.by,
                      })}
                    </p>
                  </div>
                  <SiteLinkButton href={one.href} look="quiet" aria-label={t('account.for-you-open', one)}>
                    {t('account.for-you-link')}
                  </SiteLinkButton>
                </li>
              ))}
            </ul>
          </section>
        )}
        {hasPurchases && (
          <p className="mt-4">
            <SiteLink href="/account/purchases" className="text-spruce underline">
              {t('purchases.title')}
            </SiteLink>
          </p>
        )}
      </>
    ),
    words: subscriptions.map(
      async ({ subscription, tier }) =>
        subscription.state !== 'ended' &&
        tier?.welcomeShown.includes('account') &&
        !isEmpty(tier.welcomeWords) && (
          <section
            key={subscription.id}
            className="mt-8"
            aria-label={t('account.about', { tier: tier.name })}
          >
            <h2 className="text-2xl">{tier.name}</h2>
            <RichText
              document={tier.welcomeWords}
              className="prose mt-2 text-base"
              panel={await panelsOf(tier.welcomeWords, '/account')}
            />
          </section>
        ),
    ),
    receipts: receipts.length > 0 && (
      <section aria-label={t('account.receipts')} className="mt-10">
        <h2 className="mb-3 text-2xl">{t('account.receipts')}</h2>
        <ReceiptList t={t} rows={receipts} />
        {mine.hasMoreReceipts && (
          <p className="mt-2">
            <SiteLink href="/account/receipts" className="text-spruce underline">
              {t('account.all-receipts')}
            </SiteLink>
          </p>
        )}
      </section>
    ),
    payments: payments.length > 0 && (
      <>
        <h2 className="mt-10 text-2xl">{t('account.payments')}</h2>
        <div className="mt-3 relative overflow-x-auto">
          <table className="figures w-full">
            <thead className="sr-only">
              <tr>
                <th>{t('account.date')}</th>
                <th>{t('account.for')}</th>
                <th>{t('account.outcome')}</th>
                <th>{t('account.amount')}</th>
              </tr>
            </thead>
            <tbody>
              {payments.map((payment) => (
                <tr key={payment.id} className="border-t border-line">
                  <td className="py-2.5 pr-3 whitespace-nowrap">{t.date(payment.settledAt ?? payment.at)}</td>
                  <td className="py-2.5 pr-3">
                    {payment.tierName}
                    {payment.state === 'declined' && (
                      <span className="block text-sm text-muted">
                        {t.problem(declineProblem(payment.declineCode ?? ''))}
                      </span>
                    )}
                  </td>
                  <td className="py-2.5 pr-3">
                    <LifeMark
                      t={t}
                      state={payment.isAwaited && payment.state === 'intent' ? 'awaited' : payment.state}
                    />
                    {payment.refunded > 0 && (
                      <span className="block text-sm text-muted">
                        {t('account.refunded', { amount: t.money(payment.refunded, payment.currency) })}
                      </span>
                    )}
                  </td>
                  <td className="py-2.5 text-right font-semibold">
                    {t.money(payment.amount, payment.currency)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </>
    ),
  };
  return (
    <div className="mx-auto w-full max-w-3xl px-5 py-12">
      <div className="flex flex-wrap items-start justify-between gap-4">
        <div>
          <h1 className="text-4xl break-words">{mine.name || mine.email}</h1>
          {mine.name && <p className="text-muted">{mine.email}</p>}
        </div>
        <div className="flex gap-3">
          <SiteLinkButton href="/account/settings" look="quiet">
            {t('account.details')}
          </SiteLinkButton>
          <form action={signOutAction}>
            <Button type="submit" look="quiet">
              {t('site.sign-out')}
            </Button>
          </form>
        </div>
      </div>
      {order.map((id) => (
        <Fragment key={id}>{sections[id]}</Fragment>
      ))}
    </div>
  );
}

type Next = { amount: number; credit: number; currency: string };
/** What money will be asked for, and what credit pays beside it. */
function nextWords({ amount, credit, currency }: Next, t: Words): string {
  const money = t.money(amount, currency);
  if (credit === 0) return money;
  return t('account.next-credit', { amount: money, credit: t.money(credit, currency) });
}
