'use client';

import { useState } from 'react';
import type { LocalDate } from '@/core/instants';
import type { CodeTerms } from '@/core/tiers/codes';
import { LengthInput } from '@/kit/length-input';
import { ActionForm, Draft, FormMessage, ProblemOf, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Named = { id: string; name: string };
type Props = {
  action: FormAction;
  /** Null to make one. */
  code: { id: string; version: number; name: string; terms: CodeTerms } | null;
  tiers: Named[];
  passes: Named[];
  /** How amounts are typed: the site's currency, and the amount so far. */
  currency: string;
  amount: string;
};

const FIRST: CodeTerms = {
  admits: [],
  discount: { share: 20, charges: 1 },
  currency: null,
  tierIds: [],
  gives: null,
  mostUses: null,
  mostPerPerson: 1,
  firstDay: null,
  lastDay: null,
  newMembersOnly: false,
  isOn: true,
};

/** A whole number that was typed; null where nothing was, and not a number where it is none. */
const countOf = (typed: string): number | null => (typed.trim() === '' ? null : Number(typed));

/** What a code does and how far; and, for a new one, its words. */
export function CodeForm({ action, code, tiers, passes, currency, amount: amountBefore }: Props) {
  const [terms, setTerms] = useState(code?.terms ?? FIRST);
  const [name, setName] = useState(code?.name ?? '');
  const [isBatch, setBatch] = useState(false);
  const [word, setWord] = useState('');
  const [count, setCount] = useState('50');
  const [prefix, setPrefix] = useState('');
  const [amount, setAmount] = useState(amountBefore);
  const change = (part: Partial<CodeTerms>): void => setTerms({ ...terms, ...part });
  const { discount, gives } = terms;
  const way = discount === null ? '' : discount.share === undefined ? 'amount' : 'share';
  const things = [
    ...tiers.map(({ id, name: called }) => ({ key: `tier:${id}`, name: called })),
    ...passes.map(({ id, name: called }) => ({ key: `pass:${id}`, name: called })),
  ];
  return (
    <ActionForm
      action={action}
      label={desk(code ? 'desk-codes.code' : 'desk-codes.new')}
      className="mt-6 grid max-w-3xl gap-6"
    >
      <FormMessage />
      <Draft
        name="code"
        value={{
          id: code?.id,
          version: code?.version,
          name,
          terms,
          amount: way === 'amount' ? amount : undefined,
          words: isBatch ? { count: Number(count), prefix } : { word },
        }}
      />
      {code ? (
        <TextField
          name="name"
          label={desk('desk.name')}
          value={name}
          onChange={(event) => setName(event.target.value)}
          className="max-w-sm"
        />
      ) : (
        <fieldset className="grid gap-4">
          <legend className="mb-2 text-xl font-semibold">{desk('desk-codes.words')}</legend>
          <div className="flex flex-wrap gap-6">
            {[false, true].map((batch) => (
              <label key={String(batch)} className="flex items-center gap-2">
                <input
                  type="radio"
                  name="batch"
                  checked={isBatch === batch}
                  onChange={() => setBatch(batch)}
                  className="size-4"
                />
                {desk(batch ? 'desk-codes.many' : 'desk-codes.one')}
              </label>
            ))}
          </div>
          {isBatch ? (
            <div className="flex flex-wrap gap-4">
              <TextField
                name="words.count"
                label={desk('desk-codes.how-many')}
                inputMode="numeric"
                value={count}
                onChange={(event) => setCount(event.target.value)}
                className="w-32"
              />
              <TextField
                name="words.prefix"
                label={desk('desk-codes.prefix')}
                hint={desk('desk-codes.prefix-hint')}
                value={prefix}
                onChange={(event) => setPrefix(event.target.value)}
                className="w-56"
              />
              <TextField
                name="name"
                label={desk('desk-codes.batch-name')}
                value={name}
                onChange={(event) => setName(event.target.value)}
                className="w-56"
              />
            </div>
          ) : (
            <TextField
              name="word"
              label={desk('desk-codes.word')}
              hint={desk('desk-codes.word-hint')}
              autoComplete="off"
              value={word}
              onChange={(event) => setWord(event.target.value)}
              className="max-w-sm"
            />
          )}
          <ProblemOf name="words" />
          <ProblemOf name="words.word" />
        </fieldset>
      )}
      <fieldset className="grid gap-4">
        <legend className="mb-2 text-xl font-semibold">{desk('desk-codes.does')}</legend>
        <div className="flex flex-wrap items-end gap-3">
          <SelectField
            name="way"
            label={desk('desk-codes.takes-off')}
            value={way}
            onChange={(event) =>
              change({
                discount:
                  event.target.value === ''
                    ? null
                    : event.target.value === 'share'
                      ? { share: 20, charges: discount?.charges ?? 1 }
                      : { amount: 1, charges: discount?.charges ?? 1 },
                currency: event.target.value === 'amount' ? currency : null,
              })
            }
            className="w-44"
          >
            <option value="">{desk('desk-codes.nothing-off')}</option>
            <option value="share">{desk('desk-codes.a-share')}</option>
            <option value="amount">{desk('desk-codes.an-amount')}</option>
          </SelectField>
          {way === 'share' && (
            <TextField
              name="terms.discount.share"
              label={desk('desk-codes.per-cent')}
              inputMode="numeric"
              defaultValue={discount?.share}
              onChange={(event) =>
                change({
                  discount: { share: Number(event.target.value), charges: discount?.charges ?? null },
                })
              }
              className="w-28"
            />
          )}
          {way === 'amount' && (
            <TextField
              name="amount"
              label={desk('desk-codes.amount-in', { currency })}
              inputMode="decimal"
              value={amount}
              onChange={(event) => setAmount(event.target.value)}
              className="w-32"
            />
          )}
          {discount && (
            <TextField
              name="terms.discount.charges"
              label={desk('desk-codes.first-payments')}
              inputMode="numeric"
              placeholder={desk('desk-codes.all-payments')}
              defaultValue={discount.charges ?? ''}
              onChange={(event) =>
                change({ discount: { ...discount, charges: countOf(event.target.value) } })
              }
              className="w-44"
            />
          )}
        </div>
        {discount && (
          <Ticks
            label={desk('desk-codes.off-tiers')}
            none={desk('desk-codes.all-tiers')}
            of={tiers}
            chosen={terms.tierIds}
            onChange={(tierIds) => change({ tierIds })}
          />
        )}
        <div className="flex flex-wrap items-end gap-3">
          <SelectField
            name="gives"
            label={desk('desk-codes.gives')}
            value={gives ? `${gives.kind}:${gives.id}` : ''}
            onChange={(event) => {
              const [kind, id = ''] = event.target.value.split(':');
              change({
                gives:
                  kind === 'tier' || kind === 'pass'
                    ? { kind, id, lasts: gives?.lasts ?? { n: 1, unit: 'month' } }
                    : null,
              });
            }}
            className="w-64"
          >
            <option value="">{desk('desk-codes.nothing-given')}</option>
            {things.map((thing) => (
              <option key={thing.key} value={thing.key}>
                {thing.name}
              </option>
            ))}
          </SelectField>
          {gives && (
            <>
              <SelectField
                name="lasts"
                label={desk('desk-codes.for-how-long')}
                value={gives.lasts ? 'time' : ''}
                onChange={(event) =>
                  change({ gives: { ...gives, lasts: event.target.value ? { n: 1, unit: 'month' } : null } })
                }
                className="w-36"
              >
                <option value="time">{desk('desk-codes.for-a-time')}</option>
                <option value="">{desk('desk-codes.for-good')}</option>
              </SelectField>
              {gives.lasts && (
                <LengthInput
                  label={desk('desk-codes.for-how-long')}
                  length={gives.lasts}
                  onChange={(lasts) => change({ gives: { ...gives, lasts } })}
                />
              )}
            </>
          )}
        </div>
        <Ticks
          label={desk('desk-codes.admits')}
          none={desk('desk-codes.admits-none')}
          of={tiers}
          chosen={terms.admits}
          onChange={(admits) => change({ admits })}
        />
        <ProblemOf name="terms" />
      </fieldset>
      <fieldset className="grid gap-4">
        <legend className="mb-2 text-xl font-semibold">{desk('desk-codes.limits')}</legend>
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            name="terms.mostUses"
            label={desk('desk-codes.most-uses')}
            inputMode="numeric"
            placeholder={desk('desk-codes.any-number')}
            defaultValue={terms.mostUses ?? ''}
            onChange={(event) => change({ mostUses: countOf(event.target.value) })}
          />
          <TextField
            name="terms.mostPerPerson"
            label={desk('desk-codes.most-per-person')}
            inputMode="numeric"
            placeholder={desk('desk-codes.any-number')}
            defaultValue={terms.mostPerPerson ?? ''}
            onChange={(event) => change({ mostPerPerson: countOf(event.target.value) })}
          />
          <TextField
            name="terms.firstDay"
            label={desk('desk-codes.first-day')}
            type="date"
            defaultValue={terms.firstDay ?? ''}
            onChange={(event) => change({ firstDay: (event.target.value || null) as LocalDate | null })}
          />
          <TextField
            name="terms.lastDay"
            label={desk('desk-codes.last-day')}
            type="date"
            defaultValue={terms.lastDay ?? ''}
            onChange={(event) => change({ lastDay: (event.target.value || null) as LocalDate | null })}
          />
        </div>
        <CheckField
          name="newMembersOnly"
          label={desk('desk-codes.new-only')}
          checked={terms.newMembersOnly}
          onChange={(event) => change({ newMembersOnly: event.target.checked })}
        />
        {code && (
          <CheckField
            name="isOn"
            label={desk('desk-codes.is-on')}
            hint={desk('desk-codes.is-on-hint')}
            checked={terms.isOn}
            onChange={(event) => change({ isOn: event.target.checked })}
          />
        )}
      </fieldset>
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {code ? desk('desk.save') : desk('desk-codes.make')}
      </SubmitButton>
    </ActionForm>
  );
}

type TicksProps = {
  label: string;
  /** What it means that none is ticked. */
  none: string;
  of: Named[];
  chosen: string[];
  onChange: (chosen: string[]) => void;
};

function Ticks({ label, none, of, chosen, onChange }: TicksProps) {
  return (
    <fieldset>
      <legend className="font-semibold">{label}</legend>
      <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
        {of.map(({ id, name }) => (
          <label key={id} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4"
              checked={chosen.includes(id)}
              onChange={(event) =>
                onChange(event.target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
              }
            />
            {name}
          </label>
        ))}
      </div>
      {chosen.length === 0 && <p className="mt-1 text-[0.9375rem] text-muted">{none}</p>}
    </fieldset>
  );
}
