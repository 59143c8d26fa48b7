import type { JoinField } from '@/core/tiers/join-fields';
import type { FormAction } from '@/kit/action-form';
import { CheckField, TextField } from '@/kit/field';
import { AnswerField } from './answer-field';
import { PaidForm } from '@/billing/ui/paid-form';
import { payWords, type Way } from '@/billing/ui/pay-words';
import { FirstValue } from '@/kit/first-value';
import type { Words } from '@/words/speak';
import type { CheckoutId, GatewayAccountId, OfferId, OfferVersionId, QuoteId } from '@/core/ids';

type Props = {
  t: Words;
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
  /** The name that was typed beside a join button; '' for none. */
  givenName: string;
  /** Whether their name isn’t known yet. */
  asksName: boolean;
  fields: JoinField[];
  /** What is asked about letters; '' where it is not. */
  letters: string;
  /** The code that is used; '' for none. */
  code: string;
  ways: Way[];
  keptCard: { accountId: GatewayAccountId; label: string } | null;
  isDue: boolean;
  /** What the page says is due now, and what it would be at a wallet; minor units. */
  due: number;
  dueAtWallet: number;
  /** What it costs today and next, beside the button. */
  cost: string;
  /** What was typed before, where a checkout that was left is resumed. */
  typed?: { answers: Record<string, string>; accountId: GatewayAccountId };
  button: string;
};

/** Everything on one page: who joins, what the owner asks for, and the gateway's card form. */
export function CheckoutForm({
  t,
  action,
  checkoutId,
  asksName,
  givenName,
  fields,
  letters,
  ways,
  keptCard,
  isDue,
  typed,
  cost,
  button,
  ...hidden
}: Props) {
  const asked = fields.filter((field) => field.kind !== 'name' && field.kind !== 'terms');
  const terms = fields.filter((field) => field.kind === 'terms');
  const name = fields.find((field) => field.kind === 'name');
  return (
    <PaidForm
      action={action}
      label={t('checkout.join')}
      ways={ways}
      keptCard={keptCard}
      words={payWords(t, ways, button, isDue)}
      button={button}
      cost={cost}
      chosen={typed?.accountId}
    >
      {/* One id for as long as this page is open: pressing twice, or again after a refused card, is one checkout. */}
      <FirstValue name="checkoutId" value={checkoutId} />
      {Object.entries(hidden).map(([field, value]) => (
        <input key={field} type="hidden" name={field} value={value} />
      ))}
      {asksName && name && (
        <TextField
          name="name"
          label={name.isRequired ? name.label : t('form.optional', { label: name.label })}
          hint={name.hint || undefined}
          autoComplete="name"
          defaultValue={givenName}
          className="max-w-md"
          required={name.isRequired}
        />
      )}
      {asked.length > 0 && (
        <fieldset className="grid gap-5">
          <legend className="mb-3 font-display text-xl font-bold">{t('checkout.before-you-join')}</legend>
          {asked.map((field) => (
            <AnswerField key={field.id} t={t} field={field} value={typed?.answers[field.id]} />
          ))}
        </fieldset>
      )}
      {letters && <CheckField name="letters" label={letters} />}
      {terms.map((field) => (
        <AnswerField key={field.id} t={t} field={field} value={undefined} />
      ))}
    </PaidForm>
  );
}
