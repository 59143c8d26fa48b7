'use server';

import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { callerAddress, currentActor, signInSession } from '@/app/session';
import { joinTier } from '@/services/join-tier';

export async function joinAction(_: FormState, form: FormData): Promise<FormState> {
  const [actor, caller] = [await currentActor(), await callerAddress()];
  const fields = ['joiningId', 'offerId', 'versionId', 'name', 'email', 'password', 'cardToken', 'returnTo'];
  const input = Object.fromEntries(fields.map((field) => [field, text(form, field)]));
  return forForm(
    () => joinTier(actor, input, caller),
    async ({ memberId, returnTo }) => {
      if (actor.memberId !== memberId) await signInSession(memberId);
      redirect(returnTo);
    },
  );
}
