import type { Metadata } from 'next';
import Link from 'next/link';
import { Fragment, type ReactNode } from 'react';
import { currentActor, shown } from '@/app/session';
import { signOutAction } from '@/app/sign-in-action';
import type { SectionId } from '@/core/account-sections';
import { formatDate, formatUntil } from '@/core/instants';
import { formatMoney } from '@/core/money';
import { declineProblem } from '@/billing/gateways/contract';
import { sentence } from '@/words/problems';
import { panelsOf } from '@/app/panels';
import { isEmpty } from '@/core/content/prose';
import { myAccount } from '@/members/services/my-account';
import { Button, LinkButton } from '@/kit/button';
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

export const metadata: Metadata = { title: 'Your account', robots: { index: false } };

const ACTIONS = {
  undoSwitch: undoSwitchAction,
  cancel: cancelAction,
  undo: undoCancelAction,
  pause: pauseAction,
  resume: resumeAction,
  pay: payOwedAction,
};

/** The member's own account: its sections stand in the order, and are on or off, as the owner arranged. */
export default async function AccountPage() {
  const mine = await shown(myAccount(await currentActor()));
  const { account, ways, notes, order, receipts } = mine;
  const { payments, zone } = account;
  // What was switched away from has its successor beside it; only the end of the line is shown.
  const subscriptions = account.subscriptions.filter(
    ({ subscription }, index, all) =>
      subscription.state !== 'ended' ||
      !all.slice(0, index).some((other) => other.subscription.track === subscription.track),
  );
  const sections: Record<SectionId, ReactNode> = {
    notes: notes.length > 0 && (
      <section aria-label="From the people who run this site" className="mt-10">
        <h2 className="text-2xl">For you</h2>
        <ul className="mt-3 grid gap-3">
          {notes.map((note) => (
            <li key={note.id} className="rounded-xl border border-line bg-surface p-5">
              <p className="whitespace-pre-line">{note.words}</p>
              <p className="mt-2 text-[0.9375rem] text-muted">
                {note.staffName ? `${note.staffName}, ` : ''}
                {formatDate(note.at, zone)}
              </p>
            </li>
          ))}
        </ul>
      </section>
    ),
    held: (
      <>
        <h2 className="mt-10 text-2xl">What you hold</h2>
        {account.credit.map(({ currency, amount }) => (
          <p key={currency} className="figures mt-2 text-open">
            You have {formatMoney(amount, currency)} of credit. Your next charges spend it before anything is
            taken.
          </p>
        ))}
        <div className="mt-4 grid gap-4">
          {subscriptions.length === 0 && (
            <Empty title="Nothing yet" action={<LinkButton href="/join">See how to join</LinkButton>}>
              Your tiers stand here, with what each costs and when.
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
                id={subscription.id}
                name={tier?.name ?? offer.name}
                keyCut={tier?.keyCut ?? null}
                state={subscription.state}
                sentence={sentence}
                methodLabel={offer.isPaid ? subscription.methodLabel : null}
                next={next && { date: formatDate(next.at, zone), amount: nextWords(next) }}
                until={subscription.paidThrough && formatUntil(subscription.paidThrough, zone)}
                ended={subscription.endedAt && formatDate(subscription.endedAt, zone)}
                isForGood={isKept}
                isPaid={offer.isPaid}
                ways={ways.get(subscription.id)}
                movesTo={
                  movesTo && {
                    isOwn: movesTo.isOwn,
                    name: movesTo.tier?.name ?? movesTo.name,
                    sentence: movesTo.sentence,
                    date: subscription.paidThrough ? formatDate(subscription.paidThrough, zone) : '',
                  }
                }
                pauses={subscription.pauses}
                isDisputed={subscription.disputes.length > 0}
                deeds={deeds}
                needsApproval={needsApproval}
                transfer={
                  transfer && {
                    amount: formatMoney(transfer.amount, transfer.currency),
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
      </>
    ),
    words: subscriptions.map(
      async ({ subscription, tier }) =>
        subscription.state !== 'ended' &&
        tier?.welcomeShown.includes('account') &&
        !isEmpty(tier.welcomeWords) && (
          <section key={subscription.id} className="mt-8" aria-label={`About ${tier.name}`}>
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
      <section aria-label="Receipts" className="mt-10">
        <h2 className="mb-3 text-2xl">Receipts</h2>
        <ReceiptList rows={receipts} />
        {mine.hasMoreReceipts && (
          <p className="mt-2">
            <Link href="/account/receipts" className="text-spruce underline">
              All receipts
            </Link>
          </p>
        )}
      </section>
    ),
    payments: payments.length > 0 && (
      <>
        <h2 className="mt-10 text-2xl">Payments</h2>
        <div className="mt-3 overflow-x-auto">
          <table className="figures w-full">
            <thead className="sr-only">
              <tr>
                <th>Date</th>
                <th>For</th>
                <th>Outcome</th>
                <th>Amount</th>
              </tr>
            </thead>
            <tbody>
              {payments.map((payment) => (
                <tr key={payment.id} className="border-t border-line">
                  <td className="py-2.5 pr-3 whitespace-nowrap">
                    {formatDate(payment.settledAt ?? payment.at, zone)}
                  </td>
                  <td className="py-2.5 pr-3">
                    {payment.tierName}
                    {payment.state === 'declined' && (
                      <span className="block text-sm text-muted">
                        {sentence(declineProblem(payment.declineCode ?? ''))}
                      </span>
                    )}
                  </td>
                  <td className="py-2.5 pr-3">
                    <LifeMark
                      state={payment.isAwaited && payment.state === 'intent' ? 'awaited' : payment.state}
                    />
                    {payment.refunded > 0 && (
                      <span className="block text-sm text-muted">
                        {formatMoney(payment.refunded, payment.currency)} refunded
                      </span>
                    )}
                  </td>
                  <td className="py-2.5 text-right font-semibold">
                    {formatMoney(payment.amount, payment.currency)}
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
          <LinkButton href="/account/settings" look="quiet">
            Your details
          </LinkButton>
          <form action={signOutAction}>
            <Button type="submit" look="quiet">
              Sign out
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

/** What money will be asked for, and what credit pays beside it. */
function nextWords({
  amount,
  credit,
  currency,
}: {
  amount: number;
  credit: number;
  currency: string;
}): string {
  const money = formatMoney(amount, currency);
  return credit > 0 ? `${money}, after ${formatMoney(credit, currency)} of your credit,` : money;
}
