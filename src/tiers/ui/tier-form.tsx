'use client';

import { useState } from 'react';
import type { Prose } from '@/core/content/prose';
import type { KeyCut } from '@/core/key-cut';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Fold } from '@/kit/fold';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { KeyCutField, type KnownCut } from './key-cut-field';
import { PictureField } from '@/content/ui/picture-field';
import { RichTextField } from '@/content/ui/rich-text-field';
import type { PictureId } from '@/core/ids';
import { desk } from '@/words/desk';

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
  const isNew = tier.id === '';
  return (
    <ActionForm action={action} label={desk('desk.tier')} className="grid gap-5">
      <FormMessage />
      <input type="hidden" name="id" value={tier.id} />
      <input type="hidden" name="version" value={tier.version} />
      <div className={isNew ? 'grid items-start gap-5 lg:grid-cols-2' : 'grid gap-5'}>
        <Fold title={desk('desk-tiers.what-it-is')} isOpen>
          <TextField
            name="name"
            label={desk('desk.name')}
            defaultValue={tier.name}
            hint={desk('desk-tiers.as-members-read-it')}
            required
          />
          <KeyCutField name="keyCut" initial={tier.keyCut} others={others} />
          <RichTextField
            name="description"
            label={desk('desk-tiers.description')}
            initial={tier.description}
            hint={desk('desk-tiers.a-sentence-or-two-for')}
          />
          <PictureField
            name="picture"
            label={desk('desk-tiers.picture')}
            pictureId={tier.pictureId}
            tooLarge={tooLarge}
          />
          <SelectField
            name="ladder"
            label={desk('desk-tiers.ladder-label')}
            value={ladder}
            onChange={(event) => setLadder(event.target.value)}
            hint={desk('desk-tiers.tiers-on-a-ladder-replace')}
          >
            <option value="">{desk('desk-tiers.none-held-beside-any-other')}</option>
            {ladders.map((other) => (
              <option key={other.id} value={other.id}>
                {other.name}
              </option>
            ))}
            <option value="new">{desk('desk-tiers.a-new-ladder')}</option>
          </SelectField>
          {ladder === 'new' && (
            <TextField name="newLadder" label={desk('desk-tiers.name-of-the-new-ladder')} />
          )}
        </Fold>
        <div className="grid gap-5">
          <Fold
            title={desk('desk-tiers.who-can-join-and-when')}
            gist={desk('desk-tiers.joining-gist', {
              joining: tier.joining === 'by-code' ? 'code' : tier.joining,
            })}
            isOpen={!isNew}
          >
            <SelectField name="joining" label={desk('desk.joining')} defaultValue={tier.joining}>
              <option value="open">{desk('desk.open-to-everyone')}</option>
              <option value="by-code">{desk('desk-tiers.by-code-only')}</option>
              <option value="closed">{desk('desk-tiers.closed')}</option>
            </SelectField>
            <CheckField
              name="onJoinPage"
              label={desk('desk-tiers.shown-on-the-join-page')}
              defaultChecked={tier.onJoinPage}
              hint={desk('desk-tiers.otherwise-only-its-join-links')}
            />
            <div className="grid grid-cols-2 gap-4">
              <TextField
                name="onSaleFrom"
                label={desk('desk-tiers.on-sale-from-label')}
                type="date"
                defaultValue={tier.onSaleFrom}
              />
              <TextField
                name="onSaleUntil"
                label={desk('desk-tiers.on-sale-until')}
                type="date"
                defaultValue={tier.onSaleUntil}
              />
            </div>
            <TextField
              name="places"
              label={desk('desk-tiers.places')}
              inputMode="numeric"
              placeholder={desk('desk-tiers.no-limit')}
              defaultValue={tier.places}
              className="w-40"
              hint={desk('desk-tiers.the-most-who-hold-it')}
            />
            {ladder === '' && (
              <CheckField
                name="several"
                label={desk('desk-tiers.one-person-may-hold-several')}
                defaultChecked={tier.several}
                hint={desk('desk-tiers.as-for-seats-or-plots')}
              />
            )}
          </Fold>
          <Fold
            title={desk('desk-tiers.what-they-read')}
            gist={desk('desk-tiers.words-gist')}
            isOpen={!isNew}
          >
            <RichTextField
              name="joinWords"
              label={desk('desk-tiers.words-on-the-join-form')}
              initial={tier.joinWords}
              hint={desk('desk-tiers.above-the-form-before-they-pay')}
            />
            <RichTextField
              name="welcomeWords"
              label={desk('desk-tiers.words-after-joining')}
              initial={tier.welcomeWords}
            />
            <fieldset>
              <legend className="mb-1 font-semibold">{desk('desk-tiers.these-words-are-shown')}</legend>
              <div className="flex flex-wrap gap-x-6 gap-y-1">
                {[
                  ['page', desk('desk-tiers.on-the-page-after-joining')],
                  ['mail', desk('desk-tiers.in-the-welcome-mail')],
                  ['account', desk('desk-tiers.in-the-account')],
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
              label={desk('desk-tiers.page-after-joining')}
              placeholder="/members-room"
              defaultValue={tier.welcomePath}
              hint={desk('desk-tiers.leave-it-empty-to-return')}
            />
            <TextField
              name="reference"
              label={desk('desk.reference')}
              defaultValue={tier.reference}
              hint={desk('desk-tiers.your-own-number-or-name')}
            />
          </Fold>
        </div>
      </div>
      <div className="sticky bottom-0 z-10 border-t border-line bg-paper py-3">
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {tier.id ? desk('desk-tiers.save-the-tier') : desk('desk-tiers.make-the-tier')}
        </SubmitButton>
      </div>
    </ActionForm>
  );
}
