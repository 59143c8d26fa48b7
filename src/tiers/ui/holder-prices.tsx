'use client';

import { X } from 'lucide-react';
import { useRef, useState } from 'react';
import {
  holderRows,
  MOST_HOLDER_PRICES,
  readHolderRows,
  type HolderPrice,
  type HolderRow,
} from '@/core/tiers/holder-prices';
import { Draft, ProblemOf } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { useDeskWords } from '@/kit/desk-words';
import { SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  prices: HolderPrice[];
  currency: string;
  /** How the site writes amounts. */
  locale: string;
  tiers: { id: string; name: string }[];
  /** Whether it says off how many payments; what is bought once has one. */
  isOnce?: boolean;
};

/** What holders of some tiers pay less, without a code: a row for each tier. Sent as the draft `holderPrices`. */
export function HolderPrices({ prices, currency, locale, tiers, isOnce = false }: Props) {
  const t = useDeskWords();
  const [rows, setRows] = useState(() =>
    holderRows(prices, currency, locale)
      .filter(({ tierId }) => tiers.some(({ id }) => id === tierId))
      .map((row, index) => ({ key: index, row })),
  );
  const added = useRef(rows.length);
  const read = readHolderRows(
    rows.map(({ row }) => row),
    currency,
    locale,
  );
  const change = (key: number, part: Partial<HolderRow>): void =>
    setRows((all) => all.map((one) => (one.key === key ? { key, row: { ...one.row, ...part } } : one)));
  const free = tiers.find(({ id }) => !rows.some(({ row }) => row.tierId === id));
  return (
    <fieldset className="grid gap-3">
      <legend className="font-semibold">{desk('desk-tiers.holder-prices')}</legend>
      <p className="max-w-prose text-[0.9375rem] text-muted">
        {desk(isOnce ? 'desk-tiers.holder-prices-once' : 'desk-tiers.holder-prices-hint')}
      </p>
      <Draft name="holderPrices" value={read.ok ? read.prices : null} />
      {rows.map(({ key, row }, index) => {
        const problem =
          !read.ok && read.index === index && row.typed !== '' ? t.problem(read.problem) : undefined;
        return (
          <div key={key} className="flex flex-wrap items-end gap-3">
            <SelectField
              name={`holder.${key}.tier`}
              label={desk('desk-tiers.for-holders-of')}
              value={row.tierId}
              onChange={(event) => change(key, { tierId: event.target.value })}
              className={isOnce ? 'w-44' : 'w-52'}
            >
              {tiers.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
            <SelectField
              name={`holder.${key}.way`}
              label={desk('desk-tiers.takes-off')}
              value={row.way}
              onChange={(event) => change(key, { way: event.target.value as HolderRow['way'] })}
              className="w-36"
            >
              <option value="share">{desk('desk-codes.a-share')}</option>
              <option value="amount">{desk('desk-codes.an-amount')}</option>
            </SelectField>
            <TextField
              name={`holder.${key}.typed`}
              label={
                row.way === 'share' ? desk('desk-codes.per-cent') : desk('desk-codes.amount-in', { currency })
              }
              inputMode="decimal"
              value={row.typed}
              problem={problem}
              onChange={(event) => change(key, { typed: event.target.value })}
              className={isOnce ? 'w-28' : 'w-36'}
            />
            {!isOnce && (
              <TextField
                name={`holder.${key}.charges`}
                label={desk('desk-codes.first-payments')}
                inputMode="numeric"
                placeholder={desk('desk-codes.all-payments')}
                value={row.charges}
                onChange={(event) => change(key, { charges: event.target.value })}
                className="w-44"
              />
            )}
            <Button
              look="quiet"
              aria-label={desk('desk-tiers.remove-holder-price')}
              onClick={() => setRows((all) => all.filter((one) => one.key !== key))}
            >
              <X className="size-4" aria-hidden />
            </Button>
          </div>
        );
      })}
      <ProblemOf name="holderPrices" />
      {free && rows.length < MOST_HOLDER_PRICES && (
        <Button
          look="quiet"
          className="w-fit"
          onClick={() =>
            setRows((all) => [
              ...all,
              {
                key: added.current++,
                row: { tierId: free.id, way: 'share', typed: '20', charges: isOnce ? '1' : '' },
              },
            ])
          }
        >
          {desk('desk-tiers.add-holder-price')}
        </Button>
      )}
    </fieldset>
  );
}
