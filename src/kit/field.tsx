'use client';

import clsx from 'clsx';
import {
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from 'react';
import { useProblem } from './action-form';
import { inputClass } from './input-class';

type Shared = { name: string; label: string; hint?: ReactNode; hideLabel?: boolean; problem?: string };

function useField({ name, hint, problem }: Shared) {
  const id = useId();
  const found = useProblem(name) ?? problem;
  const described = [hint && `${id}-hint`, found && `${id}-problem`].filter(Boolean).join(' ');
  return {
    id,
    found,
    aria: { id, name, 'aria-invalid': found ? true : undefined, 'aria-describedby': described || undefined },
  };
}

function Frame({
  id,
  label,
  hint,
  found,
  hideLabel,
  children,
  className,
}: Shared & { id: string; found?: string; children: ReactNode; className?: string }) {
  return (
    <div className={className}>
      <label htmlFor={id} className={clsx('mb-1 block font-semibold', hideLabel && 'sr-only')}>
        {label}
      </label>
      {children}
      {found && (
        <p id={`${id}-problem`} className="mt-1 text-[0.9375rem] font-medium text-closed">
          {found}
        </p>
      )}
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-[0.9375rem] text-muted">
          {hint}
        </p>
      )}
    </div>
  );
}

type Rest<T> = Shared & Omit<T, 'name'> & { className?: string };

export function TextField({
  name,
  label,
  hint,
  hideLabel,
  problem,
  className,
  ...rest
}: Rest<InputHTMLAttributes<HTMLInputElement>>) {
  const { id, found, aria } = useField({ name, label, hint, problem });
  return (
    <Frame {...{ id, name, label, hint, found, hideLabel, className }}>
      <input type="text" className={inputClass} {...aria} {...rest} />
    </Frame>
  );
}

export function TextArea({
  name,
  label,
  hint,
  hideLabel,
  problem,
  className,
  ...rest
}: Rest<TextareaHTMLAttributes<HTMLTextAreaElement>>) {
  const { id, found, aria } = useField({ name, label, hint, problem });
  return (
    <Frame {...{ id, name, label, hint, found, hideLabel, className }}>
      <textarea rows={3} className={inputClass} {...aria} {...rest} />
    </Frame>
  );
}

export function SelectField({
  name,
  label,
  hint,
  hideLabel,
  problem,
  className,
  children,
  ...rest
}: Rest<SelectHTMLAttributes<HTMLSelectElement>>) {
  const { id, found, aria } = useField({ name, label, hint, problem });
  return (
    <Frame {...{ id, name, label, hint, found, hideLabel, className }}>
      <select className={inputClass} {...aria} {...rest}>
        {children}
      </select>
    </Frame>
  );
}

export function CheckField({
  name,
  label,
  hint,
  ...rest
}: Omit<Rest<InputHTMLAttributes<HTMLInputElement>>, 'hideLabel' | 'problem'>) {
  const { id, found, aria } = useField({ name, label, hint });
  return (
    <div className="flex gap-2.5">
      {/* A box that is not ticked is not sent: this says that the form has it. */}
      <input type="hidden" name={`has:${name}`} value="yes" />
      <input type="checkbox" className="mt-1 size-4.5 flex-none" {...aria} {...rest} />
      <div>
        <label htmlFor={id} className="font-semibold">
          {label}
        </label>
        {found && (
          <p id={`${id}-problem`} className="text-[0.9375rem] font-medium text-closed">
            {found}
          </p>
        )}
        {hint && (
          <p id={`${id}-hint`} className="text-[0.9375rem] text-muted">
            {hint}
          </p>
        )}
      </div>
    </div>
  );
}
