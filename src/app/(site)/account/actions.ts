'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import type { Use } from '@/platform/use';
import { cancelSubscription, undoCancel } from '@/billing/services/cancel-subscription';
import { changeMethod } from '@/billing/services/change-method';
import { pauseSubscription, resumeSubscription } from '@/billing/services/pause-subscription';
import { payOwed } from '@/billing/services/pay-owed';
import { undoSwitchLater } from '@/billing/services/switch-later';

/** Does something to the subscription that the form names. */
async function change(form: FormData, work: Use<null>, message: string): Promise<FormState> {
  return forForm(
    work(await currentActor(), text(form, 'subscription')),
    () => (revalidatePath('/account'), { problems: {}, message }),
  );
}

export async function cancelAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, cancelSubscription, 'Cancelled.');
}

export async function undoCancelAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, undoCancel, 'The cancellation is undone: it continues as before.');
}

export async function undoSwitchAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, undoSwitchLater, 'The switch is undone: it continues as it is.');
}

export async function pauseAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, pauseSubscription, 'It pauses at the end of what is paid.');
}

export async function resumeAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, resumeSubscription, 'It continues.');
}

export async function payOwedAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, payOwed, 'Paid. Thank you.');
}

export async function changeMethodAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    subscriptionId: text(form, 'subscriptionId'),
    accountId: text(form, 'accountId'),
    cardToken: text(form, 'cardToken'),
  };
  return forForm(changeMethod(await currentActor(), input), ({ approveUrl }) => {
    revalidatePath('/account');
    redirect(approveUrl ?? '/account');
  });
}
