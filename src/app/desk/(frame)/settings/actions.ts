'use server';

import { revalidatePath } from 'next/cache';
import { draftsOf, forForm, text, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { askToClearTestData, goLive } from '@/desk/services/go-live';
import { saveAccountSettings } from '@/members/services/save-account-settings';
import { saveDunning } from '@/billing/services/save-dunning';
import { saveMail, saveSender, sendMailAgain } from '@/mail/services/save-mail';
import { saveTax } from '@/documents/services/save-tax';
import { tryMail } from '@/members/services/try-mail';
import { saveStaffSettings } from '@/desk/services/save-staff-settings';

const saved = (message: string) => (): FormState => {
  revalidatePath('/desk/settings', 'layout');
  return { problems: {}, message };
};

export async function saveTaxAction(_: FormState, _form: FormData, sent?: unknown): Promise<FormState> {
  return forForm(
    saveTax(await currentActor(), draftsOf(sent).tax),
    saved('Saved. It counts from the next charge on.'),
  );
}

export async function saveDunningAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { retryDays: text(form, 'retryDays'), graceDays: text(form, 'graceDays') };
  return forForm(
    saveDunning(await currentActor(), input),
    saved('Saved. It counts for failures from now on.'),
  );
}

export async function saveStaffAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { idleHours: text(form, 'idleHours'), refundAsksAbove: text(form, 'refundAsksAbove') };
  return forForm(saveStaffSettings(await currentActor(), input), saved('Saved.'));
}

export async function saveSenderAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { senderName: text(form, 'senderName'), senderAddress: text(form, 'senderAddress').trim() };
  return forForm(saveSender(await currentActor(), input), saved('Saved. The next mail comes from there.'));
}

export async function saveMailAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    template: text(form, 'template'),
    isOn: ticked(form, 'isOn'),
    subject: text(form, 'subject'),
    words: text(form, 'words'),
  };
  return forForm(saveMail(await currentActor(), input), saved('Saved. The next one reads like this.'));
}

export async function tryMailAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    tryMail(await currentActor(), { template: text(form, 'template'), memberId: text(form, 'member') }),
    ({ email }) => ({ problems: {}, message: `On its way to ${email}. The member gets nothing.` }),
  );
}

export async function sendMailAgainAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(sendMailAgain(await currentActor(), text(form, 'id')), saved('It is tried again now.'));
}

export async function saveAccountAction(_: FormState, form: FormData, sent?: unknown): Promise<FormState> {
  const drafts = draftsOf(sent);
  const input = {
    sections: drafts.sections,
    tiers: drafts.tiers,
    mayDelete: ticked(form, 'mayDelete'),
  };
  return forForm(saveAccountSettings(await currentActor(), input), saved('Saved.'));
}

export async function goLiveAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    typed: text(form, 'typed'),
    clearsTestData: text(form, 'clears') === 'yes',
    password: text(form, 'password'),
  };
  return forForm(
    goLive(await currentActor(), input),
    () => (revalidatePath('/', 'layout'), { problems: {}, message: 'The site is live.' }),
  );
}

export async function clearTestDataAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    askToClearTestData(await currentActor(), { typed: text(form, 'typed') }),
    saved('It is being cleared.'),
  );
}
