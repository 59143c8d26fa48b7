'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { endPassDevice, sendPurchaseCode } from '@/members/services/my-purchases';

export async function sendCodeAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(sendPurchaseCode(await currentActor(), text(form, 'purchase')), ({ email }, t) => ({
    problems: {},
    message: t('purchases.code-sent', { email }),
  }));
}

export async function endDeviceAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { purchaseId: text(form, 'purchase'), deviceId: text(form, 'device') };
  return forForm(endPassDevice(await currentActor(), input), (_ended, t) => {
    revalidatePath('/account/purchases');
    return { problems: {}, message: t('purchases.device-ended') };
  });
}
