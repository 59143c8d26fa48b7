import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { inputAmount } from '@/core/money';
import { AmountField } from '@/kit/amount-field';
import { powersOf } from '@/core/staff';
import { rolesPlace } from '@/desk/services/staff-roles';
import { staffSettings } from '@/desk/services/site-settings';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { staffPlace } from '@/people/services/staff';
import { PasswordAgain } from '@/people/ui/password-again';
import { StaffList } from '@/people/ui/staff-list';
import {
  changeRoleAction,
  inviteAction,
  resetProofsAction,
  saveStaffAction,
  setStaffProofAction,
  withdrawInviteAction,
} from '../actions';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.staff-settings') };

export default async function StaffSettingsPage() {
  const t = await deskWords();
  await requireStaff('set up the site');
  const actor = await currentActor();
  const { staffIdleMinutes, refundAsksAbove, currency, asksStaffProof } = await shown(staffSettings(actor));
  const { staff, invites } = await shown(staffPlace(actor));
  const { roles } = await shown(rolesPlace(actor));
  return (
    <>
      <StaffList
        staff={staff.map((one) => ({
          ...one,
          isYou: one.id === actor.memberId,
          seen: one.seenAt
            ? desk('desk-settings.last-seen', { date: t.date(one.seenAt) })
            : desk('desk-settings.never-seen'),
        }))}
        invites={invites.map(({ expiresAt, ...one }) => ({ ...one, until: t.date(expiresAt) }))}
        powers={[powersOf('owner', {}), ...roles]}
        change={changeRoleAction}
        withdraw={withdrawInviteAction}
        resetProofs={resetProofsAction}
        invite={inviteAction}
      />
      <h2 className="mt-10 text-xl">{desk('desk-settings.at-the-desk')}</h2>
      <p className="mt-2 max-w-prose text-muted">
        <Sentence
          words={desk('desk-settings.staff-intro')}
          parts={{
            link: (words) => (
              <Link href="/account/settings" className="text-spruce underline">
                {words}
              </Link>
            ),
          }}
        />
      </p>
      <ActionForm
        action={saveStaffAction}
        label={desk('desk-settings.staff')}
        className="mt-4 grid max-w-md gap-5"
      >
        <FormMessage />
        <TextField
          name="idleHours"
          label={desk('desk-settings.sign-staff-out-after-hours')}
          defaultValue={staffIdleMinutes / 60}
          inputMode="numeric"
          hint={desk('desk-settings.hours-without-opening-a-page')}
        />
        <AmountField
          name="refundAsksAbove"
          currency={currency}
          label={desk('desk-settings.ask-for-the-password-for', { currency })}
          defaultValue={inputAmount(refundAsksAbove, currency, t.locale)}
          hint={desk('desk-settings.enter-to-ask-every-time')}
        />
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {desk('desk.save')}
        </SubmitButton>
      </ActionForm>
      <h2 className="mt-10 text-xl">{desk('desk-settings.proof')}</h2>
      <p className="mt-2 max-w-prose text-muted">
        {desk(asksStaffProof ? 'desk-settings.proof-is-on' : 'desk-settings.proof-is-off')}
      </p>
      <ActionForm
        action={setStaffProofAction}
        label={desk('desk-settings.proof')}
        className="mt-4 grid max-w-md gap-4"
        emptyWhenDone
      >
        <input type="hidden" name="asks" value={asksStaffProof ? 'no' : 'yes'} />
        <PasswordAgain />
        <FormMessage />
        <SubmitButton busy={desk('desk.saving')} look="quiet" className="w-fit">
          {desk(asksStaffProof ? 'desk-settings.proof-turn-off' : 'desk-settings.proof-turn-on')}
        </SubmitButton>
      </ActionForm>
    </>
  );
}
