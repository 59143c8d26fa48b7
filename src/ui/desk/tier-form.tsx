'use client';

import { useState } from 'react';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '../kit/action-form';
import { CheckField, SelectField, TextArea, TextField } from '../kit/field';

type Props = {
  action: FormAction;
  tier: { id: string; name: string; description: string; ladder: string; onJoinPage: boolean };
  ladders: { id: string; name: string }[];
};

export function TierForm({ action, tier, ladders }: Props) {
  const [ladder, setLadder] = useState(tier.ladder);
  return (
    <ActionForm
      action={action}
      label="Tier"
      className="grid gap-5 rounded-card border border-line bg-surface p-5"
    >
      <FormMessage />
      <input type="hidden" name="id" value={tier.id} />
      <TextField
        name="name"
        label="Name"
        defaultValue={tier.name}
        hint="As members read it: “Observer”."
        required
      />
      <TextArea
        name="description"
        label="Description"
        defaultValue={tier.description}
        hint="A sentence or two for the join page."
      />
      <SelectField
        name="ladder"
        label="Ladder"
        value={ladder}
        onChange={(event) => setLadder(event.target.value)}
        hint="Tiers on a ladder replace one another; a new one goes on top."
      >
        <option value="">none: held beside any other</option>
        {ladders.map((other) => (
          <option key={other.id} value={other.id}>
            {other.name}
          </option>
        ))}
        <option value="new">a new ladder</option>
      </SelectField>
      {ladder === 'new' && <TextField name="newLadder" label="Name of the new ladder" />}
      <CheckField
        name="onJoinPage"
        label="Shown on the join page"
        defaultChecked={tier.onJoinPage}
        hint="Otherwise only its join links lead to it."
      />
      <SubmitButton busy="Saving…" className="w-fit">
        {tier.id ? 'Save' : 'Make the tier'}
      </SubmitButton>
    </ActionForm>
  );
}
