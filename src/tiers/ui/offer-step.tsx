'use client';

import { X } from 'lucide-react';
import { UNITS } from '@/core/instants';
import type { StepDraft } from '@/core/offers/draft';
import { useProblem } from '@/kit/action-form';
import { AmountField } from '@/kit/amount-field';
import { SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

/** A step as it is edited, with a key of its own that stays when it is moved. */
export type KeyedStep = { key: string; draft: StepDraft };

export const KIND_NAMES = {
  trial: desk('desk-tiers.trial'),
  repeat: desk('desk-tiers.repeating-price'),
  once: desk('desk-tiers.single-payment'),
};

type Props = {
  id: string;
  index: number;
  count: number;
  step: StepDraft;
  currency: string;
  tierName: string;
  tiers: { id: string; name: string }[];
  /** Sentences by path. */
  problems: Record<string, string>;
  /** Whether an empty field is a problem yet: not before the first try to save. */
  showEmpty: boolean;
  onChange: (part: Partial<StepDraft>) => void;
  onRemove: () => void;
};

/** One step of an offer, in words and fields. */
export function OfferStep({
  id,
  index,
  count,
  step,
  currency,
  tierName,
  tiers,
  problems,
  showEmpty,
  onChange,
  onRemove,
}: Props) {
  const path = `steps.${index}`;
  const whole = useProblem(`definition.${path}`) ?? problems[path];
  const field = (name: keyof StepDraft) => ({
    name: `${path}.${name}`,
    value: step[name],
    problem: showEmpty || step[name] !== '' ? problems[`${path}.${name}`] : undefined,
    onChange: (event: { target: { value: string } }) => onChange({ [name]: event.target.value }),
  });
  const tool = 'grid size-8 place-items-center rounded hover:bg-sunken disabled:opacity-30';
  const hasLength = step.kind !== 'once' || step.lasts === 'length';
  return (
    <li id={id} className="scroll-mt-20 rounded-card border border-line bg-surface p-4">
      <div className="flex items-center justify-between">
        <h3 className="text-lg">
          {index + 1}. {KIND_NAMES[step.kind]}
        </h3>
        <div className="flex">
          <button
            type="button"
            className={tool}
            aria-label={desk('desk-tiers.remove-this-step')}
            disabled={count === 1}
            onClick={onRemove}
          >
            <X className="size-4" aria-hidden />
          </button>
        </div>
      </div>
      {whole && (
        <p role="alert" className="mt-1 font-medium text-closed">
          {whole}
        </p>
      )}
      <div className="mt-2 grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
        <AmountField
          currency={currency}
          label={desk('desk-tiers.amount', { currency })}
          placeholder={desk('desk-tiers.for-free')}
          {...field('amount')}
        />
        {step.kind === 'once' && (
          <SelectField label={desk('desk-tiers.lasts')} {...field('lasts')}>
            <option value="length">{desk('desk-tiers.for-a-time')}</option>
            <option value="until">{desk('desk-tiers.until-a-date')}</option>
            <option value="forever">{desk('desk.for-good')}</option>
          </SelectField>
        )}
        {hasLength && (
          <div className="grid grid-cols-[5rem_1fr] items-start gap-2">
            <TextField
              label={step.kind === 'repeat' ? desk('desk-tiers.every') : desk('desk.for')}
              inputMode="numeric"
              {...field('n')}
            />
            <SelectField label={desk('desk-tiers.unit')} {...field('unit')}>
              {UNITS.map((unit) => (
                <option key={unit} value={unit}>
                  {step.n === '1' ? unit : `${unit}s`}
                </option>
              ))}
            </SelectField>
          </div>
        )}
        {step.kind === 'once' && step.lasts === 'until' && (
          <TextField label={desk('desk-tiers.last-day')} type="date" {...field('until')} />
        )}
        {step.kind === 'repeat' && (
          <TextField
            label={desk('desk.payments')}
            inputMode="numeric"
            placeholder={desk('desk-tiers.until-cancelled')}
            {...field('times')}
          />
        )}
        {tiers.length > 0 && (
          <SelectField label={desk('desk-tiers.gives')} {...field('tier')}>
            <option value="">{tierName}</option>
            {tiers.map((tier) => (
              <option key={tier.id} value={tier.id}>
                {tier.name}
              </option>
            ))}
          </SelectField>
        )}
      </div>
    </li>
  );
}
