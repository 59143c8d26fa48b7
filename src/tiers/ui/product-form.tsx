'use client';

import { useState } from 'react';
import type { Length } from '@/core/instants';
import { ActionForm, Draft, FormMessage, ProblemOf, SubmitButton, type FormAction } from '@/kit/action-form';
import { AmountField } from '@/kit/amount-field';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { LengthInput } from '@/kit/length-input';
import type { HolderPrice } from '@/core/tiers/holder-prices';
import { HolderPrices } from './holder-prices';
import { desk } from '@/words/desk';

type Named = { id: string; name: string };
type Props = {
  action: FormAction;
  product: {
    id: string;
    version: number;
    kind: 'pass' | 'gift-card';
    name: string;
    lasts: Length | null;
    mostDevices: number | null;
    taxKindId: string | null;
    onSale: boolean;
    holderPrices: HolderPrice[];
  } | null;
  /** The price, as people type it. */
  amount: string;
  currency: string;
  /** How the site writes amounts. */
  locale: string;
  passes: Named[];
  tiers: Named[];
  taxKinds: Named[];
  /** Whether a pass can be made with it. */
  canMakePass: boolean;
};

const FIRST: Length = { n: 30, unit: 'day' };

/** What is sold once: a pass, or a gift card of a tier. */
export function ProductForm({
  action,
  product,
  amount,
  currency,
  locale,
  passes,
  tiers,
  taxKinds,
  canMakePass,
}: Props) {
  const [lasts, setLasts] = useState(product ? product.lasts : FIRST);
  const things = [
    ...(canMakePass ? ['pass:new'] : []),
    ...passes.map(({ id }) => `pass:${id}`),
    ...tiers.map(({ id }) => `tier:${id}`),
  ];
  const [sells, setSells] = useState(things[0] ?? '');
  const isPass = product ? product.kind === 'pass' : sells.startsWith('pass:');
  return (
    <ActionForm
      action={action}
      label={desk('desk-products.product')}
      className="mt-5 grid max-w-xl grid-cols-1 gap-5 rounded-card border border-line bg-surface p-5"
    >
      <FormMessage />
      <input type="hidden" name="id" value={product?.id ?? ''} />
      {product && <input type="hidden" name="version" value={product.version} />}
      <Draft name="lasts" value={lasts} />
      {!product && (
        <SelectField
          name="sells"
          label={desk('desk-products.sells')}
          value={sells}
          onChange={(event) => setSells(event.target.value)}
        >
          {canMakePass && <option value="pass:new">{desk('desk-products.new-pass')}</option>}
          {passes.length > 0 && (
            <optgroup label={desk('desk-products.passes')}>
              {passes.map(({ id, name }) => (
                <option key={id} value={`pass:${id}`}>
                  {name}
                </option>
              ))}
            </optgroup>
          )}
          {tiers.length > 0 && (
            <optgroup label={desk('desk-products.gift-cards-of')}>
              {tiers.map(({ id, name }) => (
                <option key={id} value={`tier:${id}`}>
                  {name}
                </option>
              ))}
            </optgroup>
          )}
        </SelectField>
      )}
      <TextField
        name="name"
        label={desk('desk.name')}
        hint={desk('desk-products.name-hint')}
        defaultValue={product?.name ?? ''}
        maxLength={80}
      />
      <AmountField
        name="amount"
        currency={currency}
        label={desk('desk-products.price', { currency })}
        defaultValue={amount}
        className="max-w-60"
      />
      <div className="flex flex-wrap items-end gap-3">
        <SelectField
          name="ends"
          label={desk('desk-products.lasts')}
          value={lasts ? 'yes' : ''}
          onChange={(event) => setLasts(event.target.value ? FIRST : null)}
          className="w-60 max-w-full"
        >
          <option value="">{desk('desk.for-good')}</option>
          <option value="yes">{desk('desk-codes.for-a-time')}</option>
        </SelectField>
        {lasts && <LengthInput length={lasts} label={desk('desk-products.lasts')} onChange={setLasts} />}
        <ProblemOf name="lasts" />
      </div>
      {isPass && (
        <TextField
          name="mostDevices"
          label={desk('desk-products.most-devices')}
          hint={desk('desk-products.most-devices-hint')}
          inputMode="numeric"
          defaultValue={product ? String(product.mostDevices ?? '') : '3'}
          className="max-w-80"
        />
      )}
      {taxKinds.length > 0 && (
        <SelectField
          name="taxKindId"
          label={desk('desk-products.tax-kind')}
          defaultValue={product?.taxKindId ?? taxKinds[0]?.id}
          className="max-w-80"
        >
          {taxKinds.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      {tiers.length > 0 && (
        <HolderPrices
          prices={product?.holderPrices ?? []}
          currency={currency}
          locale={locale}
          tiers={tiers}
          isOnce
        />
      )}
      <CheckField
        name="onSale"
        label={desk('desk-products.on-sale')}
        hint={desk('desk-products.on-sale-hint')}
        defaultChecked={product?.onSale ?? true}
      />
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {desk('desk.save')}
      </SubmitButton>
    </ActionForm>
  );
}
