'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { addNote, removeNote } from '@/members/services/member-notes';
import { switchForMember } from '@/checkout/services/switch-for-member';
import { desk } from '@/words/desk';

const reload = (message: string) => (): FormState => {
  revalidatePath('/desk/members', 'layout');
  return { problems: {}, message };
};

export async function switchForMemberAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { quoteId: text(form, 'quoteId'), requestId: text(form, 'requestId') };
  return forForm(switchForMember(await currentActor(), input), reload(desk('desk-members.switched')));
}

export async function addNoteAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    memberId: text(form, 'member'),
    words: text(form, 'words'),
    isShown: text(form, 'isShown') === 'yes',
  };
  return forForm(addNote(await currentActor(), input), reload(desk('desk.saved')));
}

export async function removeNoteAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { memberId: text(form, 'member'), id: text(form, 'note') };
  return forForm(removeNote(await currentActor(), input), reload(desk('desk.removed')));
}
