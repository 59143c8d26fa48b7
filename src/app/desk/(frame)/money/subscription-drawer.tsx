import { CURRENT } from '@/core/billing/states';
import { Link } from '@/kit/link';
import type { Instant } from '@/core/instants';
import { inputAmount } from '@/core/money';
import type { Right } from '@/core/staff';
import { currentActor, deskWords } from '@/app/session';
import { methodWords } from '@/words/methods';
import { subscriptionFile } from '@/members/services/subscription-file';
import { NextCharge } from '@/billing/ui/next-charge';
import { RefundForm } from '@/billing/ui/refund-form';
import { StaffActions } from '@/billing/ui/staff-actions';
import { TierName } from '@/kit/key-cut';
import { Drawer } from '@/kit/drawer';
import { LifeMark } from '@/kit/state-mark';
import { changeAction, refundAction } from './actions';
import { desk } from '@/words/desk';

/** The history of a subscription, and what staff can do about it. */
export async function SubscriptionDrawer({
  id,
  closeHref,
  may,
}: {
  id: string;
  closeHref: string;
  may: (right: Right) => boolean;
}) {
  const t = await deskWords();
  const found = await subscriptionFile(await currentActor(), id);
  const file = found.ok ? found.value : null;
  if (!file)
    return (
      <Drawer
        title={desk('desk-money.not-here')}
        label={desk('desk-money.subscription')}
        closeHref={closeHref}
      >
        <p className="mt-2 text-muted">{desk('desk-money.no-subscription-of-this-mode')}</p>
      </Drawer>
    );
  const { member, view, history, payments, credit, requestId, refundAsksAbove } = file;
  const { subscription, tier, offer, sentence, next, movesTo } = view;
  const day = (at: Instant | null): string | null => at && t.date(at);
  const facts: [string, React.ReactNode][] = [
    [desk('desk.next-charge'), <NextCharge t={t} key="next" next={next} />],
    [
      desk('desk-money.paid-until'),
      subscription.paidThrough
        ? t.until(subscription.paidThrough)
        : subscription.state === 'ended'
          ? 'ended'
          : desk('desk.for-good'),
    ],
    [
      desk('desk-money.payment-method'),
      subscription.methodLabel
        ? methodWords(subscription.methodLabel, t)
        : desk('desk-money.no-payment-method'),
    ],
    ...(movesTo
      ? [
          [desk('desk-money.switches-to'), `${movesTo.name}, ${day(subscription.paidThrough) ?? ''}`] as [
            string,
            string,
          ],
        ]
      : []),
    ...credit.map(
      ({ currency, amount }) =>
        [desk('desk-money.credit-left'), t.money(amount, currency)] as [string, string],
    ),
  ];
  return (
    <Drawer
      title={
        <Link href={`/desk/members/${member.id}`} className="hover:underline">
          {member.name || member.email}
        </Link>
      }
      label={desk('desk-money.subscription-of', { name: member.name || member.email })}
      closeHref={closeHref}
    >
      <p className="mt-1 flex flex-wrap items-center gap-2">
        {tier ? <TierName cut={tier.keyCut} name={tier.name} /> : offer.name}{' '}
        <LifeMark t={t} state={subscription.state} />
        {subscription.disputes.length > 0 && <LifeMark t={t} state="disputed" />}
        {subscription.pauses && <LifeMark t={t} state="pauses" />}
      </p>
      <p className="mt-1 text-muted">{sentence}</p>
      <dl className="figures mt-3">
        {facts.map(([name, value]) => (
          <div key={name} className="flex justify-between gap-4 border-t border-line py-1.5">
            <dt className="text-muted">{name}</dt>
            <dd className="text-right">{value}</dd>
          </div>
        ))}
      </dl>
      {may('manage members') && (
        <StaffActions
          key={`${subscription.state}:${String(subscription.pauses)}`}
          id={subscription.id}
          state={subscription.state}
          pauses={subscription.pauses}
          deeds={view.deeds}
          canSwitch={CURRENT.has(subscription.state) && subscription.disputes.length === 0}
          until={subscription.paidThrough && t.until(subscription.paidThrough)}
          memberId={member.id}
          action={changeAction}
        />
      )}
      {payments.length > 0 && (
        <>
          <h3 className="mt-5 text-lg">{desk('desk.payments')}</h3>
          <ul className="figures mt-1">
            {payments.map((payment) => (
              <li key={payment.id} className="border-t border-line py-2">
                <div className="flex flex-wrap items-baseline justify-between gap-2">
                  <span>{t.date(payment.settledAt ?? payment.at)}</span>
                  <span className="flex items-center gap-2">
                    <LifeMark t={t} state={payment.state} />
                    {payment.dispute && <LifeMark t={t} state={`dispute-${payment.dispute}`} />}
                    <b className="font-semibold">{t.money(payment.amount, payment.currency)}</b>
                  </span>
                </div>
                {payment.refunded > 0 && (
                  <p className="text-[0.9375rem] text-muted">
                    {desk('desk-money.refunded-inline', {
                      amount: t.money(payment.refunded, payment.currency),
                    })}
                  </p>
                )}
                {payment.refundable > 0 && may('refund') && (
                  <RefundForm
                    key={payment.refundable}
                    action={refundAction}
                    paymentId={payment.id}
                    requestId={requestId}
                    currency={payment.currency}
                    most={inputAmount(payment.refundable, payment.currency, t.locale)}
                    mostWords={t.money(payment.refundable, payment.currency)}
                    asksAbove={
                      payment.refundable > refundAsksAbove ? t.money(refundAsksAbove, payment.currency) : null
                    }
                  />
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      <h3 className="mt-5 text-lg">{desk('desk-money.history')}</h3>
      <ol className="mt-1">
        {history.map((entry) => (
          <li key={entry.id} className="flex gap-3 border-t border-line py-1.5 text-[0.9375rem]">
            <time className="figures w-32 flex-none text-muted">{t.dateTime(entry.at)}</time>
            <span className={entry.tone === 'bad' ? 'text-closed' : undefined}>
              {entry.words}
              {entry.money && ` ${t.money(entry.money.amount, entry.money.currency)}`}
              {entry.note && <span className="block text-muted">{entry.note}</span>}
            </span>
          </li>
        ))}
      </ol>
    </Drawer>
  );
}
