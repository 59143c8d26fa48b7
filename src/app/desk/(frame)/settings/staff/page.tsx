import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { inputAmount } from '@/core/money';
import { AmountField } from '@/kit/amount-field';
import { staffSettings } from '@/desk/services/site-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { saveStaffAction } from '../actions';

export const metadata: Metadata = { title: 'Staff · Settings' };

export default async function StaffSettingsPage() {
  const t = await deskWords();
  await requireStaff('set up the site');
  const { staffIdleMinutes, refundAsksAbove, currency } = await shown(staffSettings(await currentActor()));
  return (
    <>
      <SettingsHead here="staff" />
      <p className="mt-4 max-w-prose text-muted">
        These protect the Desk when someone leaves a screen open. To see where you’re signed in, open{' '}
        <Link href="/account/settings" className="text-spruce underline">
          your account settings
        </Link>
        .
      </p>
      <ActionForm action={saveStaffAction} label="Staff" className="mt-5 grid max-w-md gap-5">
        <FormMessage />
        <TextField
          name="idleHours"
          label="Sign staff out after (hours)"
          defaultValue={staffIdleMinutes / 60}
          inputMode="numeric"
          hint="Hours without opening a page of the site."
        />
        <AmountField
          name="refundAsksAbove"
          currency={currency}
          label={`Ask for the password for refunds over (${currency})`}
          defaultValue={inputAmount(refundAsksAbove, currency, t.locale)}
          hint="Enter 0 to ask every time."
        />
        <SubmitButton busy="Saving…" className="w-fit px-8">
          Save
        </SubmitButton>
      </ActionForm>
    </>
  );
}
