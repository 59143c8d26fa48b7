import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentMember } from '@/app/session';
import { signOutAction } from '@/app/sign-in-action';
import { formatDate } from '@/core/calendar';
import { formatMoney } from '@/core/money';
import { declineSentence } from '@/gateways/contract';
import { memberAccount } from '@/services/member-account';
import { Button, LinkButton } from '@/ui/kit/button';
import { Empty } from '@/ui/kit/empty';
import { LifeMark } from '@/ui/kit/state-mark';
import { SubscriptionCard } from '@/ui/site/subscription-card';
import { cancelAction, undoCancelAction } from './actions';

export const metadata: Metadata = { title: 'Your account', robots: { index: false } };

export default async function AccountPage() {
  const member = await currentMember();
  if (!member) redirect('/sign-in?to=/account');
  const { subscriptions, payments, zone } = await memberAccount(member);
  return (
    <div className="mx-auto w-full max-w-3xl px-5 py-12">
      <div className="flex flex-wrap items-start justify-between gap-4">
        <div>
          <h1 className="text-4xl">{member.name}</h1>
          <p className="text-muted">{member.email}</p>
        </div>
        <form action={signOutAction}>
          <Button type="submit" look="quiet">
            Sign out
          </Button>
        </form>
      </div>
      <h2 className="mt-10 text-2xl">What you hold</h2>
      <div className="mt-4 grid gap-4">
        {subscriptions.length === 0 && (
          <Empty title="Nothing yet" action={<LinkButton href="/join">See how to join</LinkButton>}>
            Your tiers stand here, with what each costs and when.
          </Empty>
        )}
        {subscriptions.map(({ subscription, tier, offer, sentence, next }) => (
          <SubscriptionCard
            // A question that was open belongs to the state it was asked in.
            key={`${subscription.id}:${subscription.state}`}
            id={subscription.id}
            name={tier?.name ?? offer.name}
            keyCut={tier?.keyCut ?? null}
            state={subscription.state}
            sentence={sentence}
            methodLabel={offer.isPaid ? subscription.methodLabel : null}
            next={
              next && { date: formatDate(next.at, zone), amount: formatMoney(next.amount, next.currency) }
            }
            until={subscription.paidThrough && formatDate(subscription.paidThrough, zone)}
            ended={subscription.endedAt && formatDate(subscription.endedAt, zone)}
            isForGood={subscription.paidThrough === null && offer.isPaid}
            cancel={cancelAction}
            undo={undoCancelAction}
          />
        ))}
      </div>
      {payments.length > 0 && (
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
                    <td className="py-2.5 pr-3 whitespace-nowrap">{formatDate(payment.at, zone)}</td>
                    <td className="py-2.5 pr-3">
                      {payment.tierName}
                      {payment.state === 'declined' && (
                        <span className="block text-sm text-muted">
                          {declineSentence(payment.declineCode ?? '')}
                        </span>
                      )}
                    </td>
                    <td className="py-2.5 pr-3">
                      <LifeMark state={payment.state} />
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
      )}
    </div>
  );
}
