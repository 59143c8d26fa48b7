'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';

const FORM = 'mt-3 grid max-w-md gap-4';

type DetailsProps = {
  action: FormAction;
  name: string;
  invoiceWords: string;
  /** Null where nothing is taxed, and so nobody needs to know. */
  country: { code: string; all: { code: string; name: string }[] } | null;
};

export function DetailsForm({ action, name, invoiceWords, country }: DetailsProps) {
  return (
    <ActionForm action={action} label="Your details" className={FORM}>
      <FormMessage />
      <TextField name="name" label="Name" defaultValue={name} autoComplete="name" />
      {country && (
        <SelectField
          name="country"
          label="Country"
          defaultValue={country.code}
          hint="For the tax that is in what you pay from now on."
        >
          <option value="">not said</option>
          {country.all.map(({ code, name: label }) => (
            <option key={code} value={code}>
              {label}
            </option>
          ))}
        </SelectField>
      )}
      <TextArea
        name="invoiceWords"
        label="On your invoices, besides your name"
        defaultValue={invoiceWords}
        hint="Company, address or tax number. Shown on invoices from now on."
      />
      <SubmitButton busy="Saving…" className="w-fit">
        Save
      </SubmitButton>
    </ActionForm>
  );
}

/** Another address counts once the code that is mailed to it was typed in. */
export function AddressForm({ action, hasPassword }: { action: FormAction; hasPassword: boolean }) {
  return (
    <ActionForm action={action} label="Change email address" className={FORM}>
      <FormMessage />
      <TextField
        name="email"
        label="New email address"
        type="email"
        autoComplete="email"
        hint="We email a code there. Your address changes once you’ve typed it in."
      />
      {hasPassword && (
        <TextField name="password" label="Your password" type="password" autoComplete="current-password" />
      )}
      <SubmitButton busy="Sending…" look="quiet" className="w-fit">
        Send code
      </SubmitButton>
    </ActionForm>
  );
}

export function PasswordForm({ action, hasPassword }: { action: FormAction; hasPassword: boolean }) {
  return (
    <ActionForm action={action} label="Password" emptyWhenDone className={FORM}>
      <FormMessage />
      {hasPassword && (
        <TextField name="current" label="Current password" type="password" autoComplete="current-password" />
      )}
      <TextField
        name="next"
        label="New password"
        type="password"
        autoComplete="new-password"
        hint={`At least 10 characters.${hasPassword ? ' Every other device has to sign in again.' : ''}`}
      />
      <SubmitButton busy="Changing…" look="quiet" className="w-fit">
        {hasPassword ? 'Change password' : 'Set password'}
      </SubmitButton>
    </ActionForm>
  );
}

/** Asked in words, and twice: this cannot be undone. */
export function DeleteAccount({ action, hasPassword }: { action: FormAction; hasPassword: boolean }) {
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button look="bad" className="mt-3" onClick={() => setAsking(true)}>
        Delete my account…
      </Button>
    );
  return (
    <ActionForm action={action} label="Delete my account" className={FORM}>
      <FormMessage />
      {hasPassword && (
        <TextField name="password" label="Password" type="password" autoComplete="current-password" />
      )}
      <CheckField name="isSure" value="yes" label="Yes, end what I hold and forget me" />
      <div className="flex flex-wrap gap-3">
        <SubmitButton look="bad" busy="Deleting…">
          Delete my account
        </SubmitButton>
        <Button look="quiet" onClick={() => setAsking(false)}>
          No, keep it
        </Button>
      </div>
    </ActionForm>
  );
}
