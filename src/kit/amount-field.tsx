'use client';

import { useState, type ComponentProps } from 'react';
import { parseAmount } from '@/core/money';
import { useDeskWords } from './desk-words';
import { TextField } from './field';

type Props = Omit<ComponentProps<typeof TextField>, 'inputMode' | 'defaultValue' | 'value'> & {
  currency: string;
  defaultValue?: string;
  value?: string;
};

/** An amount as the site's locale writes it. What was understood is shown as it is typed; what has two readings is asked. */
export function AmountField({ currency, hint, problem, defaultValue = '', value, onChange, ...rest }: Props) {
  const t = useDeskWords();
  const [typed, setTyped] = useState(defaultValue);
  const text = value ?? typed;
  const read = text.trim() === '' ? null : parseAmount(text, currency, t.locale);
  const isTwoWays = read && !read.ok && read.problem.code === 'amount.two-ways';
  return (
    <TextField
      {...rest}
      inputMode="decimal"
      value={text}
      onChange={(event) => {
        setTyped(event.target.value);
        onChange?.(event);
      }}
      problem={isTwoWays ? t.problem(read.problem) : problem}
      hint={
        <>
          <output className="figures block min-h-6">
            {read?.ok && `= ${t.money(read.amount, currency)}`}
          </output>
          {hint}
        </>
      }
    />
  );
}
