import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { STAFF_MAILS, type StaffMail } from '@/core/staff-mails';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { CheckField } from '@/kit/field';
import { myStaffMails } from '@/people/services/staff-mails';
import { saveStaffMailsAction } from '../../actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.email-notifications') };

const NAMES: Record<StaffMail, { label: string; hint: string }> = {
  joined: { label: desk('desk-settings.a-member-joins'), hint: desk('desk-settings.free-tiers-too') },
  bought: {
    label: desk('desk-settings.something-is-bought'),
    hint: desk('desk-settings.passes-and-gift-cards'),
  },
  failed: {
    label: desk('desk-settings.a-payment-fails'),
    hint: desk('desk-settings.each-time-a-charge-is-declined'),
  },
  disputed: {
    label: desk('desk-settings.a-payment-is-disputed'),
    hint: desk('desk-settings.the-bank-sets-a-time'),
  },
  left: {
    label: desk('desk-settings.a-member-leaves'),
    hint: desk('desk-settings.they-cancel-or-their-subscription-ends'),
  },
  transfer: {
    label: desk('desk-settings.a-bank-transfer-is-due'),
    hint: desk('desk-settings.with-the-reference-to-look-for'),
  },
  comment: {
    label: desk('desk-settings.a-member-comments'),
    hint: desk('desk-settings.also-when-it-waits'),
  },
  weekly: {
    label: desk('desk-settings.weekly-summary'),
    hint: desk('desk-settings.on-monday-joined-left-received'),
  },
};

/** What the staff member who looks is mailed about. */
export default async function NotificationsPage() {
  const member = await requireStaff();
  const chosen = await shown(myStaffMails(await currentActor()));
  return (
    <>
      <h1 className="text-3xl" id="desk-main">
        {desk('desk-settings.email-notifications')}
      </h1>
      <p className="mt-3 max-w-prose text-muted">
        {desk('desk-settings.choose-what-you-are-emailed', { email: member.email })}
      </p>
      <ActionForm
        action={saveStaffMailsAction}
        label={desk('desk-settings.email-notifications')}
        className="mt-5 grid max-w-md gap-4"
      >
        <FormMessage />
        {STAFF_MAILS.map((kind) => (
          <CheckField
            key={kind}
            name="kinds"
            value={kind}
            defaultChecked={chosen.includes(kind)}
            {...NAMES[kind]}
          />
        ))}
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {desk('desk.save')}
        </SubmitButton>
      </ActionForm>
    </>
  );
}
