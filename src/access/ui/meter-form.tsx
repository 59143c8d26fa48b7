'use client';

import { useState } from 'react';
import { X } from 'lucide-react';
import { refKey, type Who } from '@/core/access/rule';
import type { Meter } from '@/core/access/facts';
import { ActionForm, Draft, FormMessage, ProblemOf, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Allowance = { who: Who; reads: number };
type Props = {
  action: FormAction;
  meter: (Meter & { name: string; version: number }) | null;
  tiers: { id: string; name: string }[];
  groups: { id: string; name: string }[];
};

const numberOf = (typed: string): number => Number.parseInt(typed, 10);
const typedOf = (n: number): string => (Number.isNaN(n) ? '' : String(n));

/** A meter: how many closed items who may read for free, and in what time. */
export function MeterForm({ action, meter, tiers, groups }: Props) {
  const [name, setName] = useState(meter?.name ?? '');
  const [window, setWindow] = useState<Meter['window']>(meter?.window ?? 'rolling');
  const [days, setDays] = useState(meter?.days ?? 30);
  const [allowances, setAllowances] = useState<Allowance[]>(
    meter?.allowances ?? [{ who: { kind: 'everyone' }, reads: 3 }],
  );
  const whos: { who: Who; name: string }[] = [
    { who: { kind: 'everyone' }, name: desk('desk-access.visitors-and-all') },
    { who: { kind: 'signed-in' }, name: desk('desk-access.all-who-are-signed-in') },
    ...tiers.map((tier) => ({ who: { kind: 'tier' as const, id: tier.id }, name: tier.name })),
    ...groups.map((group) => ({ who: { kind: 'group' as const, id: group.id }, name: group.name })),
  ];
  const change = (at: number, part: Partial<Allowance>): void =>
    setAllowances((all) => all.map((one, n) => (n === at ? { ...one, ...part } : one)));
  const sent = {
    id: meter?.id ?? '',
    version: meter?.version,
    name,
    window,
    ...(window === 'rolling' && { days }),
    allowances,
  };
  return (
    <ActionForm
      action={action}
      label={desk('desk-access.meter')}
      className="mt-5 grid max-w-2xl gap-5 rounded-card border border-line bg-surface p-5"
    >
      <FormMessage />
      <Draft name="meter" value={sent} />
      <TextField
        name="name"
        label={desk('desk.name')}
        value={name}
        onChange={(event) => setName(event.target.value)}
        className="max-w-sm"
      />
      <div className="flex flex-wrap items-start gap-3">
        <SelectField
          name="window"
          label={desk('desk-access.meter-window')}
          value={window}
          onChange={(event) =>
            setWindow(event.target.value === 'calendar-month' ? 'calendar-month' : 'rolling')
          }
          className="w-72 max-w-full"
        >
          <option value="rolling">{desk('desk-access.window-rolling')}</option>
          <option value="calendar-month">{desk('desk-access.window-month')}</option>
        </SelectField>
        {window === 'rolling' && (
          <TextField
            name="days"
            label={desk('desk-access.window-days')}
            inputMode="numeric"
            className="w-24"
            value={typedOf(days)}
            onChange={(event) => setDays(numberOf(event.target.value))}
          />
        )}
      </div>
      <fieldset className="grid min-w-0 grid-cols-1 gap-2">
        <legend className="mb-1 font-semibold">{desk('desk-access.who-reads-how-many')}</legend>
        <ProblemOf name="allowances" />
        {allowances.map(({ who, reads }, n) => (
          <div key={n} className="flex items-end gap-2">
            <SelectField
              name={`allowances.${n}.who`}
              label={desk('desk-access.reader')}
              hideLabel
              value={refKey(who)}
              onChange={(event) => {
                const found = whos.find((one) => refKey(one.who) === event.target.value);
                if (found) change(n, { who: found.who });
              }}
              className="max-w-64 min-w-0 flex-1"
            >
              {whos.map((one) => (
                <option key={refKey(one.who)} value={refKey(one.who)}>
                  {one.name}
                </option>
              ))}
            </SelectField>
            <TextField
              name={`allowances.${n}.reads`}
              label={desk('desk-access.reads')}
              hideLabel
              inputMode="numeric"
              className="w-20 flex-none"
              value={typedOf(reads)}
              onChange={(event) => change(n, { reads: numberOf(event.target.value) })}
            />
            <Button
              look="quiet"
              aria-label={desk('desk-access.remove-reader')}
              onClick={() => setAllowances((all) => all.filter((_, at) => at !== n))}
            >
              <X className="size-4" aria-hidden />
            </Button>
          </div>
        ))}
        <Button
          look="quiet"
          className="w-fit"
          onClick={() => setAllowances((all) => [...all, { who: { kind: 'signed-in' }, reads: 6 }])}
        >
          {desk('desk-access.add-reader')}
        </Button>
        <p className="text-[0.9375rem] text-muted">{desk('desk-access.most-counts')}</p>
      </fieldset>
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {desk('desk-access.save-meter')}
      </SubmitButton>
    </ActionForm>
  );
}
