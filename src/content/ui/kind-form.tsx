'use client';

import { useState } from 'react';
import type { Opener } from '@/core/access/rule';
import { canHaveComments, NO_COMMENTS, type CommentSettings } from '@/core/content/comments';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  kind: {
    id: string;
    name: string;
    plural: string;
    path: string | null;
    one: string;
    many: string;
    comments: CommentSettings;
  } | null;
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
      {(!kind || canHaveComments(kind.id)) && (
        <CommentFields settings={kind?.comments ?? NO_COMMENTS} tiers={tiers} />
      )}
      <SubmitButton busy={desk('desk.saving')} className="w-fit sm:col-span-2">
        {kind ? desk('desk.save') : desk('desk-content.new-kind')}
      </SubmitButton>
    </ActionForm>
  );
}

type Tiers = { id: string; name: string }[];

/** Whether a kind's items have comments, who reads and writes them, and whether they are held. */
function CommentFields({ settings, tiers }: { settings: CommentSettings; tiers: Tiers }) {
  const [isOn, setOn] = useState(settings.isOn);
  return (
    <fieldset className="grid gap-4 border-t border-line pt-4 sm:col-span-2 sm:grid-cols-2">
      <legend className="sr-only">{desk('desk-content.comments')}</legend>
      <CheckField
        name="commentsOn"
        label={desk('desk-content.comments-allowed')}
        hint={desk('desk-content.comments-allowed-hint')}
        checked={isOn}
        onChange={(event) => setOn(event.target.checked)}
      />
      <div className={isOn ? 'sm:col-start-1' : 'hidden'}>
        <Circle
          name="commentReaders"
          label={desk('desk-content.comment-readers')}
          whole={desk('desk-content.comment-readers-all')}
          openers={settings.readers}
          tiers={tiers}
        />
      </div>
      <div className={isOn ? '' : 'hidden'}>
        <Circle
          name="commentWriters"
          label={desk('desk-content.comment-writers')}
          whole={desk('desk-content.comment-writers-all')}
          openers={settings.writers}
          tiers={tiers}
        />
      </div>
      <div className={isOn ? 'sm:col-span-2' : 'hidden'}>
        <CheckField
          name="commentsHeld"
          label={desk('desk-content.comments-held')}
          defaultChecked={settings.isHeld}
        />
      </div>
    </fieldset>
  );
}

type CircleProps = { name: string; label: string; whole: string; openers: Opener[] | null; tiers: Tiers };

/** Who may, among those who can open the item. */
function Circle({ name, label, whole, openers, tiers }: CircleProps) {
  const held = (openers ?? []).flatMap(({ who }) => (who.kind === 'tier' ? [who.id] : []));
  const kinds = (openers ?? []).map(({ who }) => who.kind);
  const first =
    held.length > 0 ? 'tiers' : (kinds.find((kind) => kind === 'signed-in' || kind === 'paying') ?? '');
  const [who, setWho] = useState<string>(openers?.length === 0 ? 'tiers' : first);
  return (
    <div className="grid gap-2">
      <SelectField name={name} label={label} value={who} onChange={(event) => setWho(event.target.value)}>
        <option value="">{whole}</option>
        <option value="signed-in">{desk('desk-content.everyone-signed-in')}</option>
        <option value="paying">{desk('desk-content.everyone-who-pays')}</option>
        {tiers.length > 0 && <option value="tiers">{desk('desk-content.these-tiers')}</option>}
      </SelectField>
      {who === 'tiers' &&
        tiers.map((tier) => (
          <CheckField
            key={tier.id}
            name={`${name}.tiers`}
            value={tier.id}
            label={tier.name}
            defaultChecked={held.includes(tier.id)}
          />
        ))}
    </div>
  );
}
