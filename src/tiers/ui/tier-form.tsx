'use client';

import { useState, type ReactNode } from 'react';
import type { Prose } from '@/core/content/prose';
import type { KeyCut } from '@/core/key-cut';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { KeyCutField, type KnownCut } from './key-cut-field';
import { PictureField } from '@/content/ui/picture-field';
import { RichTextField } from '@/content/ui/rich-text-field';
import type { PictureId } from '@/core/ids';

export type EditedTier = {
  id: string;
  /** The version that is being changed; 0 for a new one. */
  version: number;
  name: string;
  description: Prose;
  keyCut: KeyCut | null;
  ladder: string;
  reference: string;
  pictureId: PictureId | null;
  joinWords: Prose;
  welcomeWords: Prose;
  welcomeShown: string[];
  welcomePath: string;
  joining: 'open' | 'by-code' | 'closed';
  onJoinPage: boolean;
  several: boolean;
  onSaleFrom: string;
  onSaleUntil: string;
  places: string;
};

type Props = {
  action: FormAction;
  tier: EditedTier;
  others: KnownCut[];
  /** What is said of a picture beyond the bound. */
  tooLarge: string;
  ladders: { id: string; name: string }[];
};

/** Everything about a tier but its prices, by what it is for. */
export function TierForm({ action, tier, others, tooLarge, ladders }: Props) {
  const [ladder, setLadder] = useState(tier.ladder);
  return (
    <ActionForm action={action} label="Tier" className="grid gap-5">
      <FormMessage />
      <input type="hidden" name="id" value={tier.id} />
      <input type="hidden" name="version" value={tier.version} />
      <Part title="What it is">
        <TextField
          name="name"
          label="Name"
          defaultValue={tier.name}
          hint="As members read it: “Observer”."
          required
        />
        <KeyCutField name="keyCut" initial={tier.keyCut} others={others} />
        <RichTextField
          name="description"
          label="Description"
          initial={tier.description}
          hint="A sentence or two for the join page."
        />
        <PictureField name="picture" label="Picture" pictureId={tier.pictureId} tooLarge={tooLarge} />
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
      </Part>
      <Part title="Who can join, and when">
        <SelectField name="joining" label="Joining" defaultValue={tier.joining}>
          <option value="open">open to everyone</option>
          <option value="by-code">by code only</option>
          <option value="closed">closed</option>
        </SelectField>
        <CheckField
          name="onJoinPage"
          label="Shown on the join page"
          defaultChecked={tier.onJoinPage}
          hint="Otherwise only its join links lead to it."
        />
        <div className="grid grid-cols-2 gap-4">
          <TextField name="onSaleFrom" label="On sale from" type="date" defaultValue={tier.onSaleFrom} />
          <TextField name="onSaleUntil" label="On sale until" type="date" defaultValue={tier.onSaleUntil} />
        </div>
        <TextField
          name="places"
          label="Places"
          inputMode="numeric"
          placeholder="no limit"
          defaultValue={tier.places}
          className="w-40"
          hint="The most who hold it at a time."
        />
        {ladder === '' && (
          <CheckField
            name="several"
            label="One person may hold several"
            defaultChecked={tier.several}
            hint="As for seats or plots: they can join it again beside what they hold."
          />
        )}
      </Part>
      <Part title="What they read">
        <RichTextField
          name="joinWords"
          label="Words on the join form"
          initial={tier.joinWords}
          hint="Above the form, before they pay."
        />
        <RichTextField name="welcomeWords" label="Words after joining" initial={tier.welcomeWords} />
        <fieldset>
          <legend className="mb-1 font-semibold">These words are shown</legend>
          <div className="flex flex-wrap gap-x-6 gap-y-1">
            {[
              ['page', 'on the page after joining'],
              ['mail', 'in the welcome mail'],
              ['account', 'in the account'],
            ].map(([place = '', label = '']) => (
              <CheckField
                key={place}
                name="welcomeShown"
                value={place}
                label={label}
                defaultChecked={tier.welcomeShown.includes(place)}
              />
            ))}
          </div>
        </fieldset>
        <TextField
          name="welcomePath"
          label="Page after joining"
          placeholder="/members-room"
          defaultValue={tier.welcomePath}
          hint="Leave it empty to return to the page they came from."
        />
        <TextField
          name="reference"
          label="Reference"
          defaultValue={tier.reference}
          hint="Your own number or name for it, included in exports. Members never see it."
        />
      </Part>
      <div className="sticky bottom-0 z-10 border-t border-line bg-paper py-3">
        <SubmitButton busy="Saving…" className="w-fit px-8">
          {tier.id ? 'Save the tier' : 'Make the tier'}
        </SubmitButton>
      </div>
    </ActionForm>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="grid gap-5 rounded-card border border-line bg-surface p-5">
      <h2 className="text-xl">{title}</h2>
      {children}
    </section>
  );
}
