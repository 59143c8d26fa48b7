import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { PaidForm } from '@/billing/ui/paid-form';
import { payWords, type Way } from '@/billing/ui/pay-words';
import type { Words } from '@/words/speak';
import type { GatewayAccountId, QuoteId, SubscriptionId } from '@/core/ids';

/** Pays for a further length of what is held. */
export function RenewForm({
  t,
  action,
  subscriptionId,
  until,
  returnTo,
  ways,
  keptCard,
  button,
}: {
  t: Words;
  action: FormAction;
  subscriptionId: SubscriptionId;
  /** The end that is shown: it makes a second press of the button harmless. */
  until: string;
  returnTo: string;
  ways: Way[];
  keptCard: { accountId: GatewayAccountId; label: string } | null;
  button: string;
}) {
  return (
    <PaidForm
      action={action}
      label={t('checkout.renew')}
      ways={ways}
      keptCard={keptCard}
      words={payWords(t, ways, button)}
      button={button}
    >
      <input type="hidden" name="subscriptionId" value={subscriptionId} />
      <input type="hidden" name="until" value={until} />
      <input type="hidden" name="returnTo" value={returnTo} />
    </PaidForm>
  );
}

/** Accepts a switch that comes at the end of what is paid. */
export function SwitchLaterForm({
  t,
  action,
  quoteId,
  button,
}: {
  t: Words;
  action: FormAction;
  quoteId: QuoteId;
  button: string;
}) {
  return (
    <ActionForm action={action} label={t('checkout.switch')} className="grid content-start gap-4">
      <FormMessage />
      <input type="hidden" name="quoteId" value={quoteId} />
      <p className="text-muted">{t('checkout.switch-undo-hint')}</p>
      <SubmitButton busy={t('checkout.switching')} className="min-h-12 w-fit px-8 text-base">
        {button}
      </SubmitButton>
    </ActionForm>
  );
}
