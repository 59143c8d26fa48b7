'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, texts, ticked, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { addWebhook, changeWebhook, removeWebhook, sendWebhookAgain } from '@/billing/services/webhooks';
import { desk } from '@/words/desk';

const PLACE = '/desk/settings/webhooks';
const asked = (form: FormData) => ({
  url: text(form, 'url'),
  topics: texts(form, 'topics'),
  tiers: texts(form, 'tiers'),
});

/** The secret is in what the form says afterwards, and nowhere else. */
export async function addWebhookAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(addWebhook(await currentActor(), asked(form)), ({ secret }) => {
    revalidatePath(PLACE);
    return Promise.resolve({ problems: {}, message: desk('desk-settings.webhook-added', { secret }) });
  });
}

export async function changeWebhookAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { ...asked(form), id: text(form, 'id'), isOn: ticked(form, 'isOn') ?? true };
  return forForm(changeWebhook(await currentActor(), input), () => {
    revalidatePath(PLACE, 'layout');
    return Promise.resolve({ problems: {}, message: desk('desk.saved') });
  });
}

export async function removeWebhookAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(removeWebhook(await currentActor(), text(form, 'id')), () => redirect(PLACE));
}

export async function sendAgainAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(sendWebhookAgain(await currentActor(), text(form, 'id')), () => {
    revalidatePath(`${PLACE}/${text(form, 'webhook')}`);
    return Promise.resolve({ problems: {} });
  });
}
