'use client';

import { useState } from 'react';
import type { SiteDefault } from '@/core/access/decide';
import type { OpenWeek } from '@/core/access/open-week';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { SelectField, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

type Page = { id: string; title: string; path: string };

/** Whom what no rule covers is open to, as a sentence; and the pages that stay open where that closes the site. */
export function SiteDefaultForm({
  action,
  accessDefault,
  decidesAbout,
  pages,
}: {
  action: FormAction;
  accessDefault: SiteDefault;
  decidesAbout: number;
  pages: Page[];
}) {
  const [to, setTo] = useState<string>(accessDefault);
  const closes = accessDefault === 'everyone' && to !== 'everyone';
  return (
    <ActionForm
      action={action}
      label={desk('desk-access.site-default')}
      className="grid content-start gap-3 rounded-card border border-line bg-surface p-4"
    >
      <div className="flex flex-wrap items-center gap-x-2 gap-y-2">
        <span>{desk('desk-access.default-is-open-to')}</span>
        <SelectField
          name="accessDefault"
          label={desk('desk-access.open-to-whom')}
          hideLabel
          value={to}
          onChange={(event) => setTo(event.target.value)}
          className="w-64"
        >
          <option value="everyone">{desk('desk-access.default-everyone')}</option>
          <option value="signed-in">{desk('desk-access.default-signed-in')}</option>
          <option value="paying">{desk('desk-access.default-paying')}</option>
        </SelectField>
      </div>
      <p className="text-[0.9375rem] text-muted">
        {desk('desk-access.default-decides', { count: decidesAbout })}
      </p>
      {closes && pages.length > 0 && (
        <fieldset className="grid gap-1.5 rounded-md bg-metered-wash px-4 py-3">
          <legend className="float-left mb-1 font-semibold text-metered">
            {desk('desk-access.which-stay-open')}
          </legend>
          <div className="clear-both grid max-h-60 gap-1 overflow-y-auto">
            {pages.map((page) => (
              <label key={page.id} className="flex gap-2">
                <input
                  type="checkbox"
                  name="staysOpen"
                  value={page.id}
                  defaultChecked={page.path === '/'}
                  className="mt-1 size-4.5 flex-none"
                />
                <span>
                  {page.title} <span className="text-muted">{page.path}</span>
                </span>
              </label>
            ))}
          </div>
          <p className="text-[0.9375rem] text-metered">{desk('desk-access.system-stays-open')}</p>
        </fieldset>
      )}
      <FormMessage />
      {to !== accessDefault && (
        <SubmitButton busy={desk('desk.saving')} look={closes ? 'bad' : 'main'} className="w-fit">
          {closes ? desk('desk-access.close-the-site') : desk('desk-access.save-default')}
        </SubmitButton>
      )}
    </ActionForm>
  );
}

type WeekProps = {
  action: FormAction;
  end: FormAction;
  openWeek: OpenWeek | null;
  tiers: { id: string; name: string }[];
};

/** A time in which everyone reads as holders of a tier do. */
export function OpenWeekForm({ action, end, openWeek, tiers }: WeekProps) {
  return (
    <div className="grid content-start gap-3 rounded-card border border-line bg-surface p-4">
      <ActionForm action={action} label={desk('desk-access.open-week')} className="grid gap-3">
        <p>{desk('desk-access.open-week-intro')}</p>
        <div className="flex flex-wrap items-start gap-3">
          <SelectField
            name="tier"
            label={desk('desk-access.open-week-tier')}
            defaultValue={openWeek?.tier ?? ''}
            className="w-48"
          >
            <option value="">{desk('desk-access.choose-a-tier')}</option>
            {tiers.map((tier) => (
              <option key={tier.id} value={tier.id}>
                {tier.name}
              </option>
            ))}
          </SelectField>
          <TextField
            name="from"
            type="date"
            label={desk('desk-access.open-week-from')}
            defaultValue={openWeek?.from ?? ''}
            className="w-40"
          />
          <TextField
            name="until"
            type="date"
            label={desk('desk-access.open-week-until')}
            defaultValue={openWeek?.until ?? ''}
            className="w-40"
          />
        </div>
        <FormMessage />
        <SubmitButton busy={desk('desk.saving')} look="quiet" className="w-fit">
          {desk('desk-access.save-open-week')}
        </SubmitButton>
      </ActionForm>
      {openWeek && (
        <ActionForm action={end}>
          <SubmitButton busy={desk('desk.saving')} look="quiet" className="w-fit">
            {desk('desk-access.end-open-week')}
          </SubmitButton>
          <FormMessage />
        </ActionForm>
      )}
    </div>
  );
}
