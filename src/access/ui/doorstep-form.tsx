'use client';

import { useState } from 'react';
import type { Doorstep } from '@/core/access/doorstep';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { desk } from '@/words/desk';
import { DoorstepFields, OwnDoorstepFields, type NoticeSample } from './doorstep-fields';

/** The doorstep that is met where no rule and no item has another. */
export function SiteDoorstepForm({
  action,
  doorstep: saved,
  sample,
}: {
  action: FormAction;
  doorstep: Doorstep;
  sample: NoticeSample;
}) {
  const [doorstep, setDoorstep] = useState(saved);
  return (
    <ActionForm
      action={action}
      label={desk('desk-access.site-doorstep')}
      className="mt-4 grid gap-6 rounded-card border border-line bg-surface p-5"
    >
      <FormMessage />
      <Draft name="doorstep" value={doorstep} />
      <DoorstepFields doorstep={doorstep} sample={sample} onChange={setDoorstep} />
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {desk('desk-access.save-doorstep')}
      </SubmitButton>
    </ActionForm>
  );
}

type ItemProps = {
  action: FormAction;
  itemId: string;
  version: number;
  doorstep: Doorstep | null;
  siteDoorstep: Doorstep;
  sample: NoticeSample;
};

/** The doorstep of one item, where it has one of its own. */
export function ItemDoorstepForm({
  action,
  itemId,
  version,
  doorstep: saved,
  siteDoorstep,
  sample,
}: ItemProps) {
  const [doorstep, setDoorstep] = useState(saved);
  return (
    <ActionForm
      action={action}
      label={desk('desk-access.doorstep')}
      className="mt-4 grid gap-6 rounded-card border border-line bg-surface p-5"
    >
      <FormMessage />
      <Draft name="doorstep" value={{ itemId, version, doorstep }} />
      <OwnDoorstepFields
        doorstep={doorstep}
        siteDoorstep={siteDoorstep}
        sample={sample}
        hint={desk('desk-access.otherwise-the-rules-doorstep')}
        onChange={setDoorstep}
      />
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {desk('desk-access.save-doorstep')}
      </SubmitButton>
    </ActionForm>
  );
}
