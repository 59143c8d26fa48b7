'use client';

import { useState } from 'react';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { ChoiceField } from '@/kit/choice-field';
import { SelectField, TextArea, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

export type TaxDraft = {
  way: 'none' | 'included' | 'added';
  homeCountry: string;
  seller: string;
  taxNumber: string;
  documentPrefix: string;
  kinds: {
    id: string;
    name: string;
    tiers: string[];
    rates: { country: string; name: string; rate: string }[];
  }[];
};
type Kind = TaxDraft['kinds'][number];

type Props = {
  action: FormAction;
  initial: TaxDraft;
  tiers: { id: string; name: string }[];
  countries: { code: string; name: string }[];
};

/** Whether and how prices are taxed, the rates by kind and country, and the seller named on invoices. */
export function TaxForm({ action, initial, tiers, countries }: Props) {
  const [draft, setDraft] = useState(initial);
  const change = (part: Partial<TaxDraft>): void => setDraft((old) => ({ ...old, ...part }));
  const changeKind = (index: number, part: Partial<Kind>): void =>
    setDraft((old) => ({
      ...old,
      kinds: old.kinds.map((kind, at) => (at === index ? { ...kind, ...part } : kind)),
    }));
  const kindOf = (tier: string): number =>
    Math.max(
      0,
      draft.kinds.findIndex((kind) => kind.tiers.includes(tier)),
    );
  const setKind = (tier: string, chosen: number): void =>
    change({
      kinds: draft.kinds.map((kind, index) => ({
        ...kind,
        tiers: [...kind.tiers.filter((other) => other !== tier), ...(index === chosen ? [tier] : [])],
      })),
    });
  const options = countries.map(({ code, name }) => ({ id: code, name }));
  return (
    <ActionForm
      action={action}
      label={desk('desk-settings.tax-and-invoices')}
      className="mt-5 grid max-w-5xl gap-5"
    >
      <FormMessage />
      <Draft name="tax" value={draft} />
      <section className="grid gap-5 rounded-card border border-line bg-surface p-5 md:grid-cols-2">
        <h2 className="text-xl md:col-span-2">{desk('desk-settings.on-your-invoices')}</h2>
        <TextArea
          name="seller"
          label={desk('desk-settings.who-sells')}
          rows={4}
          value={draft.seller}
          onChange={(event) => change({ seller: event.target.value })}
          hint={desk('desk-settings.name-and-address-a-line-each')}
          className="md:row-span-2"
        />
        <TextField
          name="taxNumber"
          label={desk('desk-settings.your-tax-number')}
          value={draft.taxNumber}
          onChange={(event) => change({ taxNumber: event.target.value })}
        />
        <TextField
          name="documentPrefix"
          label={desk('desk-settings.numbers-begin-with')}
          value={draft.documentPrefix}
          onChange={(event) => change({ documentPrefix: event.target.value })}
          hint={desk('desk-settings.numbers-look-like-i-without', { documentPrefix: draft.documentPrefix })}
        />
      </section>
      <section className="grid gap-5 rounded-card border border-line bg-surface p-5">
        <h2 className="text-xl">{desk('desk.tax')}</h2>
        <div className="grid gap-5 md:grid-cols-2">
          <SelectField
            name="way"
            label={desk('desk-settings.the-tax-is')}
            value={draft.way}
            onChange={(event) => change({ way: event.target.value as TaxDraft['way'] })}
            hint={HINTS[draft.way]}
          >
            <option value="none">{desk('desk-settings.not-charged-nothing-here-is-taxed')}</option>
            <option value="included">{desk('desk-settings.included-in-your-prices')}</option>
            <option value="added">{desk('desk-settings.added-to-your-prices-at-checkout')}</option>
          </SelectField>
          <ChoiceField
            name="homeCountry"
            label={desk('desk-settings.country-you-sell-from')}
            value={draft.homeCountry}
            onChoose={(homeCountry) => change({ homeCountry })}
            options={[{ id: '', name: desk('desk-settings.choose') }, ...options]}
            hint={desk('desk-settings.used-for-members-who-havent')}
          />
        </div>
        {draft.way !== 'none' &&
          draft.kinds.map((kind, index) => (
            <fieldset key={index} className="grid gap-3 border-t border-line pt-4">
              <legend className="sr-only">{desk('desk-settings.kind', { index: index + 1 })}</legend>
              <div className="flex flex-wrap items-end gap-3">
                <TextField
                  name={`kinds.${index}.name`}
                  label={desk('desk-settings.kind-of-thing')}
                  value={kind.name}
                  onChange={(event) => changeKind(index, { name: event.target.value })}
                  className="w-64"
                />
                <Button
                  look="quiet"
                  onClick={() =>
                    changeKind(index, {
                      rates: [...kind.rates, { country: '', name: kind.rates[0]?.name ?? '', rate: '' }],
                    })
                  }
                >
                  {desk('desk-settings.add-a-rate')}
                </Button>
                {draft.kinds.length > 1 && (
                  <Button
                    look="quiet"
                    onClick={() => change({ kinds: draft.kinds.filter((_, at) => at !== index) })}
                  >
                    {desk('desk-settings.take-this-kind-away')}
                  </Button>
                )}
              </div>
              {kind.rates.length === 0 && (
                <p className="text-muted">{desk('desk-settings.no-rate-it-is-not')}</p>
              )}
              {kind.rates.map((taxRate, at) => {
                const set = (part: Partial<typeof taxRate>): void =>
                  changeKind(index, {
                    rates: kind.rates.map((other, n) => (n === at ? { ...other, ...part } : other)),
                  });
                const path = `kinds.${index}.rates.${at}`;
                return (
                  <div key={at} className="grid items-start gap-3 sm:grid-cols-[1fr_10rem_8rem_auto]">
                    <ChoiceField
                      name={`${path}.country`}
                      label={desk('desk-settings.for-members-in')}
                      hideLabel={at > 0}
                      value={taxRate.country}
                      onChoose={(chosen) => set({ country: chosen })}
                      options={[{ id: '', name: desk('desk-settings.everywhere-else') }, ...options]}
                    />
                    <TextField
                      name={`${path}.name`}
                      label={desk('desk.name')}
                      hideLabel={at > 0}
                      placeholder={desk('desk-settings.vat')}
                      value={taxRate.name}
                      onChange={(event) => set({ name: event.target.value })}
                    />
                    <TextField
                      name={`${path}.rate`}
                      label={desk('desk-settings.per-cent')}
                      hideLabel={at > 0}
                      inputMode="decimal"
                      placeholder="20"
                      value={taxRate.rate}
                      onChange={(event) => set({ rate: event.target.value })}
                    />
                    <Button
                      look="quiet"
                      aria-label={desk('desk-settings.take-away-rate-of', {
                        at: at + 1,
                        name: kind.name || desk('desk-settings.this-kind'),
                      })}
                      className={at === 0 ? 'sm:mt-7' : undefined}
                      onClick={() => changeKind(index, { rates: kind.rates.filter((_, n) => n !== at) })}
                    >
                      {desk('desk.take-away')}
                    </Button>
                  </div>
                );
              })}
            </fieldset>
          ))}
        {draft.way !== 'none' && (
          <Button
            look="quiet"
            className="w-fit"
            onClick={() => change({ kinds: [...draft.kinds, { id: '', name: '', tiers: [], rates: [] }] })}
          >
            {desk('desk-settings.add-a-kind-of-thing')}
          </Button>
        )}
        {draft.way !== 'none' && draft.kinds.length > 1 && (
          <fieldset className="grid gap-2 border-t border-line pt-4">
            <legend className="sr-only">{desk('desk-settings.what-each-tier-is')}</legend>
            <h3 className="text-lg">{desk('desk-settings.what-each-tier-is')}</h3>
            <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
              {tiers.map((tier) => (
                <SelectField
                  key={tier.id}
                  name={`tier.${tier.id}`}
                  label={tier.name}
                  value={kindOf(tier.id)}
                  onChange={(event) => setKind(tier.id, Number(event.target.value))}
                >
                  {draft.kinds.map((kind, index) => (
                    <option key={index} value={index}>
                      {kind.name || desk('desk-settings.kind-inline', { index: index + 1 })}
                    </option>
                  ))}
                </SelectField>
              ))}
            </div>
          </fieldset>
        )}
      </section>
      <div className="sticky bottom-0 z-10 border-t border-line bg-paper py-3">
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {desk('desk-settings.save-tax-and-invoices')}
        </SubmitButton>
      </div>
    </ActionForm>
  );
}

const HINTS: Record<TaxDraft['way'], string> = {
  none: desk('desk-settings.prices-stand-as-they-are'),
  included: desk('desk-settings.members-pay-the-prices-as'),
  added: desk('desk-settings.its-added-on-top-by'),
};
