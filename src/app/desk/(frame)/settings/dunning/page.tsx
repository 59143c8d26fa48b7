import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { dunningSettings } from '@/desk/services/site-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { saveDunningAction } from '../actions';

export const metadata: Metadata = { title: 'Failed payments' };

export default async function DunningPage() {
  await requireStaff('set up the site');
  const { retryDays, graceDays } = await shown(dunningSettings(await currentActor()));
  return (
    <>
      <SettingsHead here="dunning" />
      <p className="mt-4 max-w-prose text-muted">
        A charge that is refused is tried again by itself, and the member is written to each time. After the
        last try the subscription ends.
      </p>
      <ActionForm action={saveDunningAction} label="Failed payments" className="mt-5 grid max-w-md gap-5">
        <FormMessage />
        <TextField
          name="retryDays"
          label="Try again after so many days"
          defaultValue={retryDays.join(', ')}
          inputMode="numeric"
          hint="Counted from the first failure: 1, 3, 5, 7 tries four times more."
        />
        <TextField
          name="graceDays"
          label="Days for which everything stays open"
          defaultValue={graceDays}
          inputMode="numeric"
          className="w-64"
          hint="Also counted from the first failure. 0 closes at once."
        />
        <SubmitButton busy="Saving…" className="w-fit px-8">
          Save
        </SubmitButton>
      </ActionForm>
    </>
  );
}
