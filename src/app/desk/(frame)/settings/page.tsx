import type { Metadata } from 'next';
import { JOINING } from '@/core/tiers/joining';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { generalSettings } from '@/desk/services/general-settings';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { ChoiceField } from '@/kit/choice-field';
import { SelectField, TextField } from '@/kit/field';
import { saveGeneralAction } from './actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.general-settings') };

export default async function GeneralPage() {
  await requireStaff('change settings');
  const [t, site] = [await deskWords(), await shown(generalSettings(await currentActor()))];
  return (
    <>
      <ActionForm
        action={saveGeneralAction}
        label={desk('desk-settings.general')}
        className="mt-5 grid max-w-4xl gap-x-8 gap-y-5 md:grid-cols-2"
      >
        <div className="md:col-span-2">
          <FormMessage />
        </div>
        <TextField
          name="name"
          label={desk('desk-settings.site-name')}
          defaultValue={site.name}
          maxLength={80}
          required
        />
        <div>
          <p className="mb-1 font-semibold">{desk('desk.address')}</p>
          <p className="min-h-10 py-2 font-mono break-all">{site.address}</p>
          <p className="text-[0.9375rem] text-muted">{desk('desk-settings.set-by-site-url-where')}</p>
        </div>
        <SelectField
          name="language"
          label={desk('desk-settings.language')}
          defaultValue={site.language}
          hint={desk('desk-settings.what-members-and-visitors-read')}
        >
          {site.languages.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <ChoiceField
          name="zone"
          label={desk('desk-settings.time-zone')}
          defaultValue={site.zone}
          options={site.zones.map((zone) => ({ id: zone, name: zone.replaceAll('_', ' ') }))}
          hint={desk('desk-settings.it-is-there-now-dates', { date: t.dateTime(site.now) })}
        />
        <ChoiceField
          name="currency"
          label={desk('desk.currency')}
          defaultValue={site.currency}
          options={site.currencies.map((code) => ({ id: code, name: t.currency(code) }))}
          hint={desk('desk-settings.new-offers-start-with-it')}
        />
        <SelectField
          name="joining"
          label={desk('desk-settings.joining-is')}
          defaultValue={site.joining}
          hint={desk('desk-settings.joining-hint')}
        >
          {JOINING.map((joining) => (
            <option key={joining} value={joining}>
              {desk(`desk-settings.joining-${joining}`)}
            </option>
          ))}
        </SelectField>
        <SelectField
          name="registerOfferId"
          label={desk('desk-settings.registers-with')}
          defaultValue={site.registerOfferId ?? ''}
          hint={desk('desk-settings.registers-with-hint')}
        >
          <option value="">{desk('desk-settings.registers-with-nothing')}</option>
          {site.freeOffers.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        {site.rhythms.length > 1 && (
          <SelectField
            name="joinRhythm"
            label={desk('desk-settings.join-page-opens-with')}
            defaultValue={site.joinRhythm}
            hint={desk('desk-settings.prices-that-visitors-see-before')}
          >
            <option value="">{desk('desk-settings.the-shortest-period')}</option>
            {site.rhythms.map(({ key, length }) => (
              <option key={key} value={key}>
                {t('join.rhythm-name', length)}
              </option>
            ))}
          </SelectField>
        )}
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8 md:col-span-2">
          {desk('desk.save')}
        </SubmitButton>
      </ActionForm>
    </>
  );
}
