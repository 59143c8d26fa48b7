'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { fieldsUnder, forForm, text, ticked, type FormState } from '@/app/form-state';
import { currentActor, setSecrets } from '@/app/session';
import { submitCheckout } from '@/checkout/services/submit-checkout';
import { renewSubscription } from '@/billing/services/renew-subscription';
import { startCheckout } from '@/checkout/services/start-checkout';
import { switchLater } from '@/billing/services/switch-later';

/** Takes a visitor’s email address. The next page asks for the mailed code, whether or not the address is known. */
export async function startCheckoutAction(_: FormState, form: FormData): Promise<FormState> {
  const fields = ['offerId', 'email', 'to', 'name', 'code', 'website', 'shown', 'work'];
  const input = Object.fromEntries(fields.map((field) => [field, text(form, field)]));
  return forForm(startCheckout(await currentActor(), input), async ({ browser }) => {
    await setSecrets({ code: browser });
    redirect('/sign-in/code');
  });
}

const FIELDS = [
  'checkoutId',
  'offerId',
  'versionId',
  'quoteId',
  'name',
  'code',
  'cardToken',
  'accountId',
  'returnTo',
  'country',
  'addedTax',
  'mode',
  'due',
  'dueAtWallet',
];

export async function joinAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    ...Object.fromEntries(FIELDS.map((field) => [field, text(form, field)])),
    keepCard: text(form, 'keepCard') === 'yes',
    letters: ticked(form, 'letters'),
    answers: fieldsUnder(form, 'answers.'),
  };
  return forForm(submitCheckout(await currentActor(), input), (joined) => {
    const checkoutId = text(form, 'checkoutId');
    // The Back button must show the page as it now is for them.
    revalidatePath('/', 'layout');
    if (joined.state === 'transfer') redirect(`/join/pending/${checkoutId}`);
    if (joined.state === 'approve') redirect(joined.url);
    redirect(`/join/done/${checkoutId}`);
  });
}

export async function renewAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    subscriptionId: text(form, 'subscriptionId'),
    until: text(form, 'until'),
    cardToken: text(form, 'cardToken'),
    keepCard: text(form, 'keepCard') === 'yes',
  };
  return forForm(renewSubscription(await currentActor(), input), () => redirect('/account'));
}

export async function switchLaterAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(switchLater(await currentActor(), text(form, 'quoteId')), () => {
    revalidatePath('/account');
    redirect('/account');
  });
}
