import type { Metadata } from 'next';
import { panelsOf } from '@/app/panels';
import { currentActor, shown } from '@/app/session';
import { formatDate } from '@/core/instants';
import { isEmpty } from '@/core/content/prose';
import { formatMoney } from '@/core/money';
import { afterCheckout } from '@/checkout/services/after-checkout';
import { KeyGlyph } from '@/kit/key-cut';
import { LinkButton } from '@/kit/button';
import { RichText } from '@/content/ui/rich-text';
import { PasswordForm } from '@/people/ui/settings-forms';
import { changePasswordAction } from '../../../account/settings/actions';
import type { CheckoutId } from '@/core/ids';

export const metadata: Metadata = { title: 'You are in', robots: { index: false } };

/** After joining: the owner's words, what was paid and what comes, and the way to what they came for. */
export default async function DonePage({ params }: { params: Promise<{ checkoutId: CheckoutId }> }) {
  const { checkoutId } = await params;
  const { tier, words, view, payment, zone, onward, email, hasPassword } = await shown(
    afterCheckout(await currentActor(), checkoutId),
  );
  const { next, sentence, subscription } = view;
  const rows = [
    payment
      ? {
          what: `Paid on ${formatDate(payment.at, zone)}`,
          amount: formatMoney(payment.amount, payment.currency),
        }
      : { what: 'Paid today', amount: 'nothing' },
    next
      ? { what: `Next charge, ${formatDate(next.at, zone)}`, amount: formatMoney(next.amount, next.currency) }
      : { what: 'Next charge', amount: 'none' },
  ];
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-8 px-5 py-12 lg:grid-cols-[1fr_22rem]">
      <div>
        <KeyGlyph cut={tier.keyCut} size={34} />
        <h1 className="mt-4 text-4xl break-words">You now hold {tier.name}</h1>
        {!isEmpty(words) && (
          <RichText document={words} className="prose mt-5" panel={await panelsOf(words, onward)} />
        )}
        <div className="mt-7 flex flex-wrap gap-3">
          <LinkButton href={onward} className="min-h-12 px-8 text-base">
            {onward === '/account' ? 'Go to your account' : 'Go on to where you were going'}
          </LinkButton>
          {onward !== '/account' && (
            <LinkButton href="/account" look="quiet" className="min-h-12 px-6 text-base">
              Your account
            </LinkButton>
          )}
        </div>
        {hasPassword ? (
          <p className="mt-8 text-muted">You sign in with your password, or with a code we email you.</p>
        ) : (
          <section aria-label="Set a password" className="mt-10 border-t border-line pt-6">
            <h2 className="text-xl">Set a password (optional)</h2>
            <p className="mt-1 text-muted">You can always sign in with a code we email you instead.</p>
            <PasswordForm action={changePasswordAction} hasPassword={false} />
          </section>
        )}
      </div>
      <aside aria-label="Receipt" className="figures h-fit rounded-xl border border-line bg-surface p-6">
        <h2 className="text-xl">Receipt</h2>
        <dl className="mt-3">
          {rows.map(({ what, amount }) => (
            <div key={what} className="flex justify-between gap-4 border-t border-line py-2">
              <dt className="text-muted">{what}</dt>
              <dd className="font-semibold">{amount}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-3">{sentence}</p>
        {subscription.methodLabel && <p className="mt-2 text-muted">{subscription.methodLabel}</p>}
        <p className="mt-3 text-[0.9375rem] text-muted">We’ve emailed this to {email}.</p>
      </aside>
    </div>
  );
}
