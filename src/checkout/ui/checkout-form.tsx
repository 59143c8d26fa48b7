'use client';

import { useState } from 'react';
import type { JoinField } from '@/core/tiers/join-fields';
import type { FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { AnswerField } from './answer-field';
import { PaidForm, type Way } from '@/billing/ui/paid-form';
import type { CheckoutId, GatewayAccountId, OfferId, OfferVersionId, QuoteId } from '@/core/ids';

type Props = {
  action: FormAction;
  checkoutId: CheckoutId;
  offerId: OfferId;
  versionId: OfferVersionId;
  quoteId: QuoteId;
  /** Where the payer is, and the tax on top that was shown. */
  country: string;
  addedTax: number;
  mode: '' | 'test';
  returnTo: string;
  /** Whether they have not said yet what they are called. */
  asksName: boolean;
  fields: JoinField[];
  asksCode: boolean;
  ways: Way[];
  keptCard: { accountId: GatewayAccountId; label: string } | null;
  isDue: boolean;
  /** What the page says is due now, and what it would be at a wallet; minor units. */
  due: number;
  dueAtWallet: number;
  /** What it costs today and next, beside the button. */
  cost: string;
  /** What was typed before, where a checkout that was left is taken up again. */
  typed?: { answers: Record<string, string>; code: string; accountId: GatewayAccountId };
  button: string;
};

/** Everything on one page: who joins, what the owner asks for, and the gateway's card form. */
export function CheckoutForm({
  action,
  checkoutId,
  asksName,
  fields,
  asksCode,
  ways,
  keptCard,
  isDue,
  typed,
  cost,
  button,
  ...hidden
}: Props) {
  // One id for as long as this page is open: pressing twice, or again after a refused card, is one joining.
  const [id] = useState(checkoutId);
  const asked = fields.filter((field) => field.kind !== 'name' && field.kind !== 'terms');
  const terms = fields.filter((field) => field.kind === 'terms');
  const name = fields.find((field) => field.kind === 'name');
  return (
    <PaidForm
      action={action}
      label="Join"
      ways={ways}
      keptCard={keptCard}
      isDue={isDue}
      button={button}
      cost={cost}
      chosen={typed?.accountId}
    >
      <input type="hidden" name="checkoutId" value={id} />
      {Object.entries(hidden).map(([field, value]) => (
        <input key={field} type="hidden" name={field} value={value} />
      ))}
      {asksName && name && (
        <TextField
          name="name"
          label={name.isRequired ? name.label : `${name.label} (optional)`}
          hint={name.hint || undefined}
          autoComplete="name"
          className="max-w-md"
          required={name.isRequired}
        />
      )}
      {(asked.length > 0 || asksCode) && (
        <fieldset className="grid gap-5">
          <legend className="mb-3 font-display text-xl font-bold">Before you join</legend>
          {asksCode && (
            <TextField
              name="code"
              label="Code"
              hint="The word you were given."
              autoComplete="off"
              defaultValue={typed?.code}
              className="sm:w-64"
            />
          )}
          {asked.map((field) => (
            <AnswerField key={field.id} field={field} value={typed?.answers[field.id]} />
          ))}
        </fieldset>
      )}
      {terms.map((field) => (
        <AnswerField key={field.id} field={field} value={undefined} />
      ))}
    </PaidForm>
  );
}
