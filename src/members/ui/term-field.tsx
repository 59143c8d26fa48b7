'use client';

import type { GiftTerm } from '@/core/billing/gift-term';
import type { LocalDate } from '@/core/instants';
import { LengthInput } from '@/kit/length-input';
import { ProblemOf } from '@/kit/action-form';
import { SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = { label: string; term: GiftTerm; today: LocalDate; onChange: (term: GiftTerm) => void };

const WAYS: GiftTerm['for'][] = ['length', 'day', 'good'];

/** How long something is given for. */
export function TermField({ label, term, today, onChange }: Props) {
  const chosen = (way: string): GiftTerm =>
    way === 'length'
      ? { for: 'length', length: { n: 1, unit: 'month' } }
      : way === 'day'
        ? { for: 'day', lastDay: today }
        : { for: 'good' };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <SelectField
        name="term"
        label={label}
        value={term.for}
        onChange={(event) => onChange(chosen(event.target.value))}
        className="w-44"
      >
        {WAYS.map((way) => (
          <option key={way} value={way}>
            {desk(`desk-members.term-${way}`)}
          </option>
        ))}
      </SelectField>
      {term.for === 'length' && (
        <LengthInput
          label={label}
          length={term.length}
          onChange={(length) => onChange({ for: 'length', length })}
        />
      )}
      {term.for === 'day' && (
        <TextField
          name="lastDay"
          label={desk('desk-members.last-day')}
          type="date"
          min={today}
          value={term.lastDay}
          onChange={(event) => onChange({ for: 'day', lastDay: event.target.value as LocalDate })}
        />
      )}
      <ProblemOf name="term.length.n" />
    </div>
  );
}
