'use client';

import { useState } from 'react';
import type { Length } from '@/core/instants';
import { ActionForm, Draft, FormMessage, ProblemOf, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';
import { LengthInput } from '@/kit/length-input';

type Props = {
  action: FormAction;
  pass: { id: string; name: string; byAddress: boolean; lasts: Length | null; version: number } | null;
};

const FIRST: Length = { n: 30, unit: 'day' };

/** A pass: its name, how long it lasts, and whether it is given for an address. */
export function PassForm({ action, pass }: Props) {
  const [name, setName] = useState(pass?.name ?? '');
  const [byAddress, setByAddress] = useState(pass?.byAddress ?? false);
  const [lasts, setLasts] = useState(pass?.lasts ?? null);
  return (
    <ActionForm
      action={action}
      label={desk('desk-access.pass')}
      className="grid gap-5 rounded-card border border-line bg-surface p-5"
    >
      <FormMessage />
      <Draft name="pass" value={{ id: pass?.id ?? '', version: pass?.version, name, byAddress, lasts }} />
      <TextField
        name="name"
        label={desk('desk.name')}
        hint={desk('desk-access.pass-name-hint')}
        value={name}
        onChange={(event) => setName(event.target.value)}
        className="max-w-sm"
      />
      <div className="flex flex-wrap items-end gap-3">
        <SelectField
          name="ends"
          label={desk('desk-access.pass-lasts')}
          value={lasts ? 'yes' : ''}
          onChange={(event) => setLasts(event.target.value ? FIRST : null)}
          className="w-60 max-w-full"
        >
          <option value="">{desk('desk-access.pass-without-end')}</option>
          <option value="yes">{desk('desk-access.pass-for-a-time')}</option>
        </SelectField>
        {lasts && <LengthInput length={lasts} label={desk('desk-access.pass-lasts')} onChange={setLasts} />}
        <ProblemOf name="lasts" />
      </div>
      <CheckField
        name="byAddress"
        label={desk('desk-access.pass-by-address')}
        hint={desk('desk-access.pass-by-address-hint')}
        checked={byAddress}
        onChange={(event) => setByAddress(event.target.checked)}
      />
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {pass ? desk('desk.save') : desk('desk-access.make-the-pass')}
      </SubmitButton>
    </ActionForm>
  );
}
