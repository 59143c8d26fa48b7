import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { STAFF_MAILS, type StaffMail } from '@/core/staff-mails';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { CheckField } from '@/kit/field';
import { myStaffMails } from '@/people/services/staff-mails';
import { saveStaffMailsAction } from '../../actions';

export const metadata: Metadata = { title: 'Email notifications' };

const NAMES: Record<StaffMail, { label: string; hint: string }> = {
  joined: { label: 'A member joins', hint: 'Free tiers too.' },
  failed: { label: 'A payment fails', hint: 'Each time a charge is declined.' },
  disputed: { label: 'A payment is disputed', hint: 'The bank sets a time limit for your answer.' },
  left: { label: 'A member leaves', hint: 'They cancel, or their subscription ends.' },
  transfer: { label: 'A bank transfer is due', hint: 'With the reference to look for.' },
  weekly: { label: 'Weekly summary', hint: 'On Monday: joined, left, received, failed, disputed.' },
};

/** What the staff member who looks is mailed about. */
export default async function NotificationsPage() {
  const member = await requireStaff();
  const chosen = await shown(myStaffMails(await currentActor()));
  return (
    <>
      <h1 className="text-3xl" id="desk-main">
        Email notifications
      </h1>
      <p className="mt-3 max-w-prose text-muted">
        Choose what you are emailed about, at {member.email}. Other staff choose for themselves.
      </p>
      <ActionForm
        action={saveStaffMailsAction}
        label="Email notifications"
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
        <SubmitButton busy="Saving…" className="w-fit px-8">
          Save
        </SubmitButton>
      </ActionForm>
    </>
  );
}
