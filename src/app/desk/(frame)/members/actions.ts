'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { addNote, removeNote } from '@/services/member-notes';
import { switchForMember } from '@/services/switch-for-member';

const reload = (message: string) => (): FormState => {
  revalidatePath('/desk/members', 'layout');
  return { problems: {}, message };
};

export async function switchForMemberAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = { quoteId: text(form, 'quoteId'), requestId: text(form, 'requestId') };
  return forForm(() => switchForMember(actor, input), reload('Switched.'));
}

export async function addNoteAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    memberId: text(form, 'member'),
    words: text(form, 'words'),
    isShown: text(form, 'isShown') === 'yes',
  };
  return forForm(() => addNote(actor, input), reload('Kept.'));
}

export async function removeNoteAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => removeNote(actor, text(form, 'member'), text(form, 'note')), reload('Taken away.'));
}
