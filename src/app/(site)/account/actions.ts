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

type Done =
  | 'account.cancelled'
  | 'account.cancel-undone'
  | 'account.switch-undone'
  | 'account.pause-asked'
  | 'account.resumed'
  | 'account.paid';

/** Does something to the subscription that the form names. */
async function change(form: FormData, work: Use<null>, said: Done): Promise<FormState> {
  return forForm(
    work(await currentActor(), text(form, 'subscription')),
    (_, t) => (revalidatePath('/account'), { problems: {}, message: t(said) }),
  );
}

export async function cancelAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, cancelSubscription, 'account.cancelled');
}

export async function undoCancelAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, undoCancel, 'account.cancel-undone');
}

export async function undoSwitchAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, undoSwitchLater, 'account.switch-undone');
}

export async function pauseAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, pauseSubscription, 'account.pause-asked');
}

export async function resumeAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, resumeSubscription, 'account.resumed');
}

export async function payOwedAction(_: FormState, form: FormData): Promise<FormState> {
  return change(form, payOwed, 'account.paid');
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
