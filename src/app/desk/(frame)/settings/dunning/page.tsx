import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { dunningSettings } from '@/desk/services/site-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { saveDunningAction } from '../actions';

export const metadata: Metadata = { title: 'Failed payments · Settings' };

export default async function DunningPage() {
  await requireStaff('set up the site');
  const { retryDays, graceDays } = await shown(dunningSettings(await currentActor()));
  return (
    <>
      <SettingsHead here="dunning" />
      <p className="mt-4 max-w-prose text-muted">
        A declined charge is retried automatically, and the member is emailed each time. After the last retry
        the subscription ends.
      </p>
      <ActionForm action={saveDunningAction} label="Failed payments" className="mt-5 grid max-w-md gap-5">
        <FormMessage />
        <TextField
          name="retryDays"
          label="Retry after (days)"
          defaultValue={retryDays.join(', ')}
          inputMode="numeric"
          hint="Counted from the first failure: 1, 3, 5, 7 retries four times."
        />
        <TextField
          name="graceDays"
          label="Grace period (days)"
          defaultValue={graceDays}
          inputMode="numeric"
          className="w-64"
          hint="How long members keep access, counted from the first failure. 0 ends access immediately."
        />
        <SubmitButton busy="Saving…" className="w-fit px-8">
          Save
        </SubmitButton>
      </ActionForm>
    </>
  );
}
