'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  kind: { id: string; name: string; plural: string; path: string | null; one: string; many: string } | null;
  /** Its address cannot be changed. */
  isFixed: boolean;
  tiers: { id: string; name: string }[];
  save: FormAction;
};

/** What a kind is called and where its list is; for a new one also who opens its items. */
export function KindForm({ kind, isFixed, tiers, save }: Props) {
  const [who, setWho] = useState('default');
  return (
    <ActionForm
      action={save}
      label={kind ? kind.many : desk('desk-content.new-kind')}
      emptyWhenDone={!kind}
      className="grid gap-4 sm:grid-cols-2"
    >
      <input type="hidden" name="id" value={kind?.id ?? ''} />
      <div className="sm:col-span-2">
        <FormMessage />
      </div>
      <TextField
        name="name"
        label={desk('desk-content.kind-one')}
        placeholder={kind?.one ?? desk('desk-content.kind-one-example')}
        defaultValue={kind?.name}
        maxLength={40}
      />
      <TextField
        name="plural"
        label={desk('desk-content.kind-many')}
        placeholder={kind?.many ?? desk('desk-content.kind-many-example')}
        defaultValue={kind?.plural}
        maxLength={40}
      />
      {!isFixed && (
        <TextField
          name="path"
          label={desk('desk-content.kind-path')}
          hint={desk('desk-content.kind-path-hint')}
          defaultValue={kind?.path ?? ''}
          maxLength={80}
        />
      )}
      {!kind && (
        <div className="grid gap-2">
          <SelectField
            name="who"
            label={desk('desk-content.kind-opens-to')}
            value={who}
            onChange={(event) => setWho(event.target.value)}
            hint={desk('desk-content.kind-opens-hint')}
          >
            <option value="default">{desk('desk-access.set-by-default')}</option>
            <option value="signed-in">{desk('desk-content.everyone-signed-in')}</option>
            <option value="paying">{desk('desk-content.everyone-who-pays')}</option>
            {tiers.length > 0 && <option value="tiers">{desk('desk-content.these-tiers')}</option>}
          </SelectField>
          {who === 'tiers' &&
            tiers.map(({ id, name }) => <CheckField key={id} name="tiers" value={id} label={name} />)}
        </div>
      )}
      <SubmitButton busy={desk('desk.saving')} className="w-fit sm:col-span-2">
        {kind ? desk('desk.save') : desk('desk-content.new-kind')}
      </SubmitButton>
    </ActionForm>
  );
}
