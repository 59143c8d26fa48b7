import type { Metadata } from 'next';
import { currentActor, shown } from '@/app/session';
import { formatDate } from '@/core/instants';
import { formatMoney } from '@/core/money';
import { methodChoices } from '@/billing/services/method-choices';
import { LinkButton } from '@/kit/button';
import { ChangeMethodForm } from '@/billing/ui/change-method-form';
import { changeMethodAction } from '../../actions';
import type { SubscriptionId } from '@/core/ids';

export const metadata: Metadata = { title: 'How it is paid', robots: { index: false } };

/** How a subscription is paid from now on; what is owed is charged at once. */
export default async function PayPage({ params }: { params: Promise<{ subscriptionId: SubscriptionId }> }) {
  const { subscriptionId } = await params;
  const choices = await shown(methodChoices(await currentActor(), subscriptionId));
  const { name, methodLabel, owed, next, needsApproval, ways, zone } = choices;
  const owes = owed && formatMoney(owed.amount, owed.currency);
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-12">
      <h1 className="text-4xl">How {name} is paid</h1>
      <p className="figures mt-3 text-lg">
        {owes
          ? `${owes} is owed, and charged as soon as you have chosen.`
          : next
            ? `The next charge is ${formatMoney(next.amount, next.currency)} on ${formatDate(next.at, zone)}.`
            : 'Nothing more will be charged.'}
      </p>
      {needsApproval && (
        <p className="mt-3 rounded-md bg-metered-wash px-4 py-3 text-metered">
          {methodLabel} bills only what you told it yes to. Choose it once more to approve what comes next, or
          pay in another way.
        </p>
      )}
      {methodLabel && <p className="text-muted">Until now: {methodLabel}.</p>}
      <div className="mt-6">
        {ways.length > 0 ? (
          <ChangeMethodForm
            action={changeMethodAction}
            subscriptionId={subscriptionId}
            ways={ways}
            button={owes ? `Pay ${owes}` : 'Pay this way from now on'}
          />
        ) : (
          <p>There is no other way to pay this now. Write to us, please.</p>
        )}
      </div>
      <LinkButton href="/account" look="quiet" className="mt-6">
        Back to your account
      </LinkButton>
    </div>
  );
}
