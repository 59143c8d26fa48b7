import type { Metadata } from 'next';
import { requireStaff } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import { MembersTabs } from '@/members/ui/members-tabs';
import { desk } from '@/words/desk';
import { addNewMemberAction } from '../actions';

export const metadata: Metadata = { title: desk('desk-members.add-title') };

export default async function AddMemberPage() {
  await requireStaff('manage members');
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-3" id="desk-main">
        <h1 className="text-3xl">{desk('desk-members.add-member')}</h1>
        <MembersTabs here="members" />
      </div>
      <ActionForm action={addNewMemberAction} className="mt-6 grid max-w-md gap-5">
        <FormMessage />
        <TextField name="email" label={desk('desk-members.email')} type="email" autoComplete="off" />
        <TextField
          name="name"
          label={desk('desk.name')}
          autoComplete="off"
          hint={desk('desk-members.add-hint')}
        />
        <SubmitButton busy={desk('desk-members.adding')} className="w-fit px-8">
          {desk('desk-members.add')}
        </SubmitButton>
      </ActionForm>
    </>
  );
}
