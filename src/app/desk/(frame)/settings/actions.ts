'use server';

import { revalidatePath } from 'next/cache';
import { forForm, parseJson, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { askToClearTestData, goLive } from '@/services/go-live';
import { saveAccountSettings } from '@/services/save-account-settings';
import { saveDunning } from '@/services/save-dunning';
import { saveMail, saveSender, sendMailAgain } from '@/services/save-mail';
import { saveTax } from '@/services/save-tax';
import { tryMail } from '@/services/try-mail';

const saved = (message: string) => (): FormState => {
  revalidatePath('/desk/settings', 'layout');
  return { problems: {}, message };
};

export async function saveTaxAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => saveTax(actor, parseJson(text(form, 'tax'))),
    saved('Saved. It counts from the next charge on.'),
  );
}

export async function saveDunningAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = { retryDays: text(form, 'retryDays'), graceDays: text(form, 'graceDays') };
  return forForm(() => saveDunning(actor, input), saved('Saved. It counts for failures from now on.'));
}

export async function saveSenderAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = { senderName: text(form, 'senderName'), senderAddress: text(form, 'senderAddress').trim() };
  return forForm(() => saveSender(actor, input), saved('Saved. The next mail comes from there.'));
}

export async function saveMailAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    template: text(form, 'template'),
    isOn: text(form, 'isOn') === 'yes',
    subject: text(form, 'subject'),
    words: text(form, 'words'),
  };
  return forForm(() => saveMail(actor, input), saved('Saved. The next one reads like this.'));
}

export async function tryMailAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => tryMail(actor, text(form, 'template'), text(form, 'member')),
    ({ email }) => ({ problems: {}, message: `On its way to ${email}. The member gets nothing.` }),
  );
}

export async function sendMailAgainAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => sendMailAgain(actor, text(form, 'id')), saved('It is tried again now.'));
}

export async function saveAccountAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    sections: parseJson(text(form, 'sections')),
    tiers: parseJson(text(form, 'tiers')),
    mayDelete: text(form, 'mayDelete') === 'yes',
  };
  return forForm(() => saveAccountSettings(actor, input), saved('Saved.'));
}

export async function goLiveAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = { typed: text(form, 'typed'), clearsTestData: text(form, 'clears') === 'yes' };
  return forForm(
    () => goLive(actor, input),
    () => (revalidatePath('/', 'layout'), { problems: {}, message: 'The site is live.' }),
  );
}

export async function clearTestDataAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(() => askToClearTestData(actor, text(form, 'typed')), saved('It is being cleared.'));
}
