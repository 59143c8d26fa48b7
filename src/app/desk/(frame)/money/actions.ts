'use server';

import { revalidatePath } from 'next/cache';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor } from '@/app/session';
import { connectGateway, registerWebhook } from '@/services/connect-gateway';

const reload = (message: string) => (): FormState => {
  revalidatePath('/desk', 'layout');
  return { problems: {}, message };
};

export async function connectGatewayAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () =>
      connectGateway(actor, 'curlew-cards', {
        siteKey: text(form, 'siteKey'),
        secretKey: text(form, 'secretKey'),
      }),
    reload('Connected. The keys are right.'),
  );
}

export async function registerWebhookAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => registerWebhook(actor, text(form, 'account')),
    reload('Registered; a test message is on its way.'),
  );
}
