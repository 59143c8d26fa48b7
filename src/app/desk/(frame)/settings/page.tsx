import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { generalSettings } from '@/desk/services/general-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { ChoiceField } from '@/kit/choice-field';
import { SelectField, TextField } from '@/kit/field';
import { saveGeneralAction } from './actions';

export const metadata: Metadata = { title: 'General · Settings' };

export default async function GeneralPage() {
  await requireStaff('set up the site');
  const [t, site] = [await deskWords(), await shown(generalSettings(await currentActor()))];
  return (
    <>
      <SettingsHead here="general" />
      <ActionForm
        action={saveGeneralAction}
        label="General"
        className="mt-5 grid max-w-4xl gap-x-8 gap-y-5 md:grid-cols-2"
      >
        <div className="md:col-span-2">
          <FormMessage />
        </div>
        <TextField name="name" label="Site name" defaultValue={site.name} maxLength={80} required />
        <div>
          <p className="mb-1 font-semibold">Address</p>
          <p className="min-h-10 py-2 font-mono break-all">{site.address}</p>
          <p className="text-[0.9375rem] text-muted">Set by SITE_URL where the site runs.</p>
        </div>
        <SelectField
          name="language"
          label="Language"
          defaultValue={site.language}
          hint="What members and visitors read, and how dates and amounts are written. The Desk stays English."
        >
          {site.languages.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <ChoiceField
          name="zone"
          label="Time zone"
          defaultValue={site.zone}
          options={site.zones.map((zone) => ({ id: zone, name: zone.replaceAll('_', ' ') }))}
          hint={`It is ${t.dateTime(site.now)} there now. Dates on the site and in mails follow it, and new charges fall at that local time. What is already scheduled keeps its moment.`}
        />
        <ChoiceField
          name="currency"
          label="Currency"
          defaultValue={site.currency}
          options={site.currencies.map((code) => ({ id: code, name: code }))}
          hint="New offers start with it. Existing offers and what members pay stay as they are."
        />
        {site.rhythms.length > 1 && (
          <SelectField
            name="joinRhythm"
            label="Join page opens with"
            defaultValue={site.joinRhythm}
            hint="Prices that visitors see before they choose another rhythm."
          >
            <option value="">the shortest period</option>
            {site.rhythms.map(({ key, length }) => (
              <option key={key} value={key}>
                {t('join.rhythm-name', length)}
              </option>
            ))}
          </SelectField>
        )}
        <SubmitButton busy="Saving…" className="w-fit px-8 md:col-span-2">
          Save
        </SubmitButton>
      </ActionForm>
    </>
  );
}
