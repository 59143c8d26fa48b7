import { Link } from '@/kit/link';
import { currentActor, deskWords } from '@/app/session';
import { inputAmount } from '@/core/money';
import type { Right } from '@/core/staff';
import { RefundForm } from '@/billing/ui/refund-form';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Drawer } from '@/kit/drawer';
import { purchaseOfPayment } from '@/members/services/purchase-file';
import { desk } from '@/words/desk';
import { methodWords } from '@/words/methods';
import { refundAction, sendPurchaseCodeAction } from './actions';

type Props = { paymentId: string; closeHref: string; may: (right: Right) => boolean };

/** What a payment bought once, and what staff can do about it; nothing where it was for something else. */
export async function PurchaseDrawer({ paymentId, closeHref, may }: Props) {
  const t = await deskWords();
  const found = await purchaseOfPayment(await currentActor(), paymentId);
  const file = found.ok ? found.value : null;
  if (!file) return null;
  const { member, purchase, until, devices, payment, refundable, requestId, refundAsksAbove } = file;
  const name = member.name || member.email;
  const facts: [string, string][] = [
    [desk('desk-products.bought-on'), t.date(purchase.at)],
    ...(purchase.kind === 'pass'
      ? ([
          [
            desk('desk-products.open-until'),
            until === undefined
              ? desk('desk-products.ended')
              : until
                ? t.until(until)
                : desk('desk.for-good'),
          ],
          [desk('desk-products.devices-used'), t.count(devices)],
        ] as [string, string][])
      : []),
    ...(purchase.methodLabel
      ? ([[desk('desk-money.payment-method'), methodWords(purchase.methodLabel, t)]] as [string, string][])
      : []),
  ];
  return (
    <Drawer
      title={
        <Link href={`/desk/members/${member.id}`} className="hover:underline">
          {name}
        </Link>
      }
      label={desk('desk-products.purchase-of', { name })}
      closeHref={closeHref}
    >
      <p className="mt-1 font-semibold">{purchase.name}</p>
      <p className="text-muted">
        {desk(`desk-products.kind-${purchase.kind}`)}
        {purchase.state === 'ended' && ` · ${desk('desk-products.ended')}`}
      </p>
      <dl className="figures mt-3">
        {facts.map(([fact, value]) => (
          <div key={fact} className="flex justify-between gap-4 border-t border-line py-1.5">
            <dt className="text-muted">{fact}</dt>
            <dd className="text-right">{value}</dd>
          </div>
        ))}
      </dl>
      {payment && payment.refunded > 0 && (
        <p className="text-[0.9375rem] text-muted">
          {desk('desk-money.refunded-inline', { amount: t.money(payment.refunded, payment.currency) })}
        </p>
      )}
      {payment && refundable > 0 && may('refund') && (
        <RefundForm
          key={refundable}
          action={refundAction}
          paymentId={payment.id}
          requestId={requestId}
          currency={payment.currency}
          most={inputAmount(refundable, payment.currency, t.locale)}
          mostWords={t.money(refundable, payment.currency)}
          asksAbove={refundable > refundAsksAbove ? t.money(refundAsksAbove, payment.currency) : null}
        />
      )}
      {purchase.state === 'paid' && may('manage members') && (
        <ActionForm action={sendPurchaseCodeAction} className="mt-4 grid gap-2">
          <input type="hidden" name="purchase" value={purchase.id} />
          <SubmitButton busy={desk('desk-products.sending')} look="quiet" className="w-fit">
            {desk('desk-products.send-code')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </Drawer>
  );
}
