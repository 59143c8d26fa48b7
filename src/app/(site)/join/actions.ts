'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, text, type FormState } from '@/app/form-state';
import { callerAddress, currentActor, rememberJoining, signInSession } from '@/app/session';
import { confirmJoining } from '@/services/confirm-joining';
import { joinTier } from '@/services/join-tier';
import { renewSubscription } from '@/services/renew-subscription';
import { switchLater } from '@/services/switch-later';

const FIELDS = [
  'joiningId',
  'offerId',
  'versionId',
  'quoteId',
  'shown',
  'website',
  'name',
  'email',
  'password',
  'code',
  'cardToken',
  'accountId',
  'returnTo',
  'country',
  'addedTax',
  'mode',
];
const ANSWER = 'answers.';

export async function joinAction(_: FormState, form: FormData): Promise<FormState> {
  const [actor, caller] = [await currentActor(), await callerAddress()];
  const answers = Object.fromEntries(
    [...form.keys()]
      .filter((key) => key.startsWith(ANSWER))
      .map((key) => [key.slice(ANSWER.length), text(form, key)]),
  );
  const input = {
    ...Object.fromEntries(FIELDS.map((field) => [field, text(form, field)])),
    keepCard: text(form, 'keepCard') === 'yes',
    answers,
  };
  return forForm(
    () => joinTier(actor, input, caller),
    async (joined) => {
      if (joined.state === 'proof') redirect('/join/proof');
      if (joined.state === 'transfer') redirect(`/join/pending/${text(form, 'joiningId')}`);
      if (joined.state === 'approve') {
        await rememberJoining(text(form, 'joiningId'));
        redirect(joined.url);
      }
      if (actor.memberId !== joined.memberId) await signInSession(joined.memberId);
      redirect(`/join/done/${text(form, 'joiningId')}`);
    },
  );
}

export async function confirmAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    () => confirmJoining(text(form, 'token')),
    async ({ memberId, joiningId }) => {
      await signInSession(memberId);
      redirect(`/join/done/${joiningId}`);
    },
  );
}

export async function renewAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  const input = {
    subscriptionId: text(form, 'subscriptionId'),
    until: text(form, 'until'),
    cardToken: text(form, 'cardToken'),
    keepCard: text(form, 'keepCard') === 'yes',
  };
  return forForm(
    () => renewSubscription(actor, input),
    () => redirect('/account'),
  );
}

export async function switchLaterAction(_: FormState, form: FormData): Promise<FormState> {
  const actor = await currentActor();
  return forForm(
    () => switchLater(actor, text(form, 'quoteId')),
    () => {
      revalidatePath('/account');
      redirect('/account');
    },
  );
}
