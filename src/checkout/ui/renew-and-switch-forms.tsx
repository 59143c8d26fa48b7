'use client';

import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { PaidForm, type Way } from '@/billing/ui/paid-form';
import type { GatewayAccountId, QuoteId, SubscriptionId } from '@/core/ids';

/** Pays for a further length of what is held. */
export function RenewForm({
  action,
  subscriptionId,
  until,
  returnTo,
  ways,
  keptCard,
  button,
}: {
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
    <PaidForm action={action} label="Renew" ways={ways} keptCard={keptCard} button={button}>
      <input type="hidden" name="subscriptionId" value={subscriptionId} />
      <input type="hidden" name="until" value={until} />
      <input type="hidden" name="returnTo" value={returnTo} />
    </PaidForm>
  );
}

/** Accepts a switch that comes at the end of what is paid. */
export function SwitchLaterForm({
  action,
  quoteId,
  button,
}: {
  action: FormAction;
  quoteId: QuoteId;
  button: string;
}) {
  return (
    <ActionForm action={action} label="Switch" className="grid content-start gap-4">
      <FormMessage />
      <input type="hidden" name="quoteId" value={quoteId} />
      <p className="text-muted">Nothing is due today. You can undo this in your account until that day.</p>
      <SubmitButton busy="Switching…" className="min-h-12 w-fit px-8 text-base">
        {button}
      </SubmitButton>
    </ActionForm>
  );
}
