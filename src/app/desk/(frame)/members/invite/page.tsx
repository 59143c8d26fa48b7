import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { SelectField, TextArea } from '@/kit/field';
import { inviteChoices } from '@/members/services/invite-to-join';
import { MembersTabs } from '@/members/ui/members-tabs';
import { desk } from '@/words/desk';
import { inviteToJoinAction } from '../actions';

export const metadata: Metadata = { title: desk('desk-members.invite') };

export default async function InvitePage() {
  await requireStaff('manage members');
  const { offers, registerOfferId } = await shown(inviteChoices(await currentActor()));
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-3" id="desk-main">
        <h1 className="text-3xl">{desk('desk-members.invite')}</h1>
        <MembersTabs here="members" />
      </div>
      <p className="mt-2 max-w-prose text-muted">{desk('desk-members.invite-intro')}</p>
      <ActionForm action={inviteToJoinAction} emptyWhenDone className="mt-6 grid max-w-xl gap-5">
        <FormMessage />
        <SelectField
          name="offerId"
          label={desk('desk-members.invite-to')}
          defaultValue={registerOfferId ?? offers[0]?.id ?? ''}
        >
          {offers.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <TextArea
          name="addresses"
          label={desk('desk-members.addresses')}
          hint={desk('desk-members.invite-addresses-hint')}
          rows={5}
        />
        <TextArea
          name="words"
          label={desk('desk-members.invite-words')}
          hint={desk('desk-members.invite-words-hint')}
          rows={4}
        />
        <SubmitButton busy={desk('desk-members.inviting')} className="w-fit px-8">
          {desk('desk-members.invite-send')}
        </SubmitButton>
      </ActionForm>
    </>
  );
}
