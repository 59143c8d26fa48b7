'use client';

import { useState } from 'react';
import { ALWAYS_ON, type AccountSection } from '@/core/account-sections';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { CheckField } from '@/kit/field';
import { SortableList, SortableRow } from '@/kit/sortable-list';
import { desk } from '@/words/desk';

type TierArrangement = { id: string; name: string; sections: AccountSection[] | null };
type Props = { action: FormAction; sections: AccountSection[]; mayDelete: boolean; tiers: TierArrangement[] };

/** The sections of the members' account, dragged into order and switched on or off, for all and for single tiers. */
export function AccountSettings({ action, sections: initial, mayDelete, tiers: initialTiers }: Props) {
  const [sections, setSections] = useState(initial);
  const [tiers, setTiers] = useState(initialTiers);
  const setTier = (id: string, own: AccountSection[] | null): void =>
    setTiers((all) => all.map((tier) => (tier.id === id ? { ...tier, sections: own } : tier)));
  const own = Object.fromEntries(tiers.map((tier) => [tier.id, tier.sections]));
  return (
    <ActionForm
      action={action}
      label={desk('desk-members.the-members-account')}
      className="mt-5 grid max-w-4xl gap-5"
    >
      <FormMessage />
      <Draft name="sections" value={sections} />
      <Draft name="tiers" value={own} />
      <div className="grid items-start gap-5 md:grid-cols-2">
        <Arrangement name="All members" sections={sections} onChange={setSections} />
        {tiers
          .filter((tier) => tier.sections)
          .map((tier) => (
            <Arrangement
              key={tier.id}
              name={tier.name}
              sections={tier.sections ?? []}
              onChange={(changed) => setTier(tier.id, changed)}
              onRemove={() => setTier(tier.id, null)}
            />
          ))}
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-muted">{desk('desk-members.separate-arrangement-for')}</span>
        {tiers
          .filter((tier) => !tier.sections)
          .map((tier) => (
            <Button key={tier.id} look="quiet" onClick={() => setTier(tier.id, sections)}>
              {tier.name}
            </Button>
          ))}
      </div>
      <CheckField
        name="mayDelete"
        value="yes"
        label={desk('desk-members.members-may-delete-their-account')}
        defaultChecked={mayDelete}
        hint={desk('desk-members.their-tiers-end-and-their')}
      />
      <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
        {desk('desk.save')}
      </SubmitButton>
    </ActionForm>
  );
}

type ArrangementProps = {
  name: string;
  sections: AccountSection[];
  onChange: (sections: AccountSection[]) => void;
  onRemove?: () => void;
};

function Arrangement({ name, sections, onChange, onRemove }: ArrangementProps) {
  return (
    <section className="rounded-card border border-line bg-surface p-4" aria-label={name}>
      <div className="mb-2 flex items-center justify-between gap-3">
        <h2 className="text-lg">{name}</h2>
        {onRemove && (
          <Button look="quiet" className="min-h-8" onClick={onRemove}>
            {desk('desk-members.use-the-default')}
          </Button>
        )}
      </div>
      <SortableList
        ids={sections.map((section) => section.id)}
        nameOf={(id) => desk(`desk-members.section-${id as AccountSection['id']}`)}
        onMove={(ids) => onChange(ids.flatMap((id) => sections.find((section) => section.id === id) ?? []))}
        className="grid gap-1"
        label={desk('desk-members.sections-of-the-account', { name })}
      >
        {sections.map((section) => (
          <SortableRow
            key={section.id}
            id={section.id}
            name={desk(`desk-members.section-${section.id}`)}
            className="flex items-center gap-2 rounded-md border border-line bg-paper px-3 py-1.5"
          >
            <label className="flex flex-1 items-center gap-2.5">
              <input
                type="checkbox"
                className="size-4.5"
                checked={section.isOn}
                disabled={ALWAYS_ON.includes(section.id)}
                onChange={(event) =>
                  onChange(
                    sections.map((other) =>
                      other.id === section.id ? { ...other, isOn: event.target.checked } : other,
                    ),
                  )
                }
              />
              {desk(`desk-members.section-${section.id}`)}
            </label>
          </SortableRow>
        ))}
      </SortableList>
    </section>
  );
}
