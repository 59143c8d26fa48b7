import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { dunningSettings } from '@/desk/services/site-settings';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { saveDunningAction } from '../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.failed-payments-settings') };

export default async function DunningPage() {
  await requireStaff('change settings');
  const { retryDays, graceDays } = await shown(dunningSettings(await currentActor()));
  return (
    <>
      <p className="mt-4 max-w-prose text-muted">{desk('desk-settings.a-declined-charge-is-retried')}</p>
      <ActionForm
        action={saveDunningAction}
        label={desk('desk.failed-payments')}
        className="mt-5 grid max-w-md gap-5"
      >
        <FormMessage />
        <TextField
          name="retryDays"
          label={desk('desk-settings.retry-after-days')}
          defaultValue={retryDays.join(', ')}
          inputMode="numeric"
          hint={desk('desk-settings.counted-from-the-first-failure')}
        />
        <TextField
          name="graceDays"
          label={desk('desk-settings.grace-period-days')}
          defaultValue={graceDays}
          inputMode="numeric"
          className="w-64"
          hint={desk('desk-settings.how-long-members-keep-access')}
        />
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {desk('desk.save')}
        </SubmitButton>
      </ActionForm>
    </>
  );
}
