'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { moderateComments } from '@/access/services/moderate-comments';
import { deleteMyComment, writeComment } from '@/access/services/write-comment';

/** Done; the page it was done on is read anew. */
const said = (message: string): FormState => {
  revalidatePath('/', 'layout');
  return { problems: {}, message };
};

export async function writeCommentAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    itemId: text(form, 'item'),
    replyTo: text(form, 'replyTo'),
    words: text(form, 'words'),
    formKey: text(form, 'formKey'),
  };
  return forForm(writeComment(await currentActor(), input), ({ state }, t) =>
    said(t(state === 'waiting' ? 'comment.held' : 'comment.posted')),
  );
}

export async function deleteCommentAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(deleteMyComment(await currentActor(), text(form, 'id')), (_, t) =>
    said(t('comment.removed')),
  );
}

export async function removeCommentAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { ids: [text(form, 'id')], state: 'removed' };
  return forForm(moderateComments(await currentActor(), input), (_, t) => said(t('comment.gone-here')));
}
