'use server';

import { forForm, text, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { OPEN_TOPICS } from '@/core/mail-topics';
import { askForMails, confirmMails } from '@/members/services/ask-for-mails';

export async function askForMailsAction(_: FormState, form: FormData): Promise<FormState> {
  const email = text(form, 'email');
  const topics = OPEN_TOPICS.filter((topic) => ticked(form, `topic-${topic}`));
  return forForm(askForMails(await currentActor(), { email, topics }), (_sent, t) => ({
    problems: {},
    message: t('by-mail.sent', { email: email.trim() }),
  }));
}

export async function confirmMailsAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(confirmMails(await currentActor(), text(form, 'token')), (_confirmed, t) => ({
    problems: {},
    message: t('by-mail.confirmed'),
  }));
}
