'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { forForm, given, text, withAsked, type FormState } from '@/app/form-state';
import { makeFeed, revokeFeed } from '@/access/services/private-feed';
import { config } from '@/platform/config';
import { currentActor, dropSecrets, setSecrets } from '@/app/session';
import { changeAddress, changeDetails } from '@/members/services/change-details';
import { deleteAccount } from '@/members/services/delete-account';
import { setMyMailTopic } from '@/mail/services/mail-topics';
import {
  beginOneTime,
  confirmOneTime,
  endOneTime,
  renewRecoveryCodes,
} from '@/people/services/one-time-codes';
import { addPasskey, beginPasskey, removePasskey } from '@/people/services/passkeys';
import type { Words } from '@/words/speak';
import { changePassword, endMySession, signOutEverywhere } from '@/people/services/my-sign-in';

export async function changeDetailsAction(_: FormState, form: FormData): Promise<FormState> {
  const input = {
    name: text(form, 'name'),
    country: given(form, 'country'),
    invoiceWords: given(form, 'invoiceWords'),
  };
  return forForm(
    changeDetails(await currentActor(), input),
    (_, t) => (revalidatePath('/account', 'layout'), { problems: {}, message: t('form.saved') }),
  );
}

export async function changeAddressAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { email: text(form, 'email'), password: text(form, 'password') };
  return forForm(changeAddress(await currentActor(), input), async ({ browser }) => {
    await setSecrets({ code: browser });
    redirect('/sign-in/code');
  });
}

export async function changePasswordAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { current: text(form, 'current'), next: text(form, 'next') };
  return forForm(changePassword(await currentActor(), input), async ({ session, device }, t) => {
    await setSecrets({ session, device });
    return { problems: {}, message: t('details.password-saved') };
  });
}

export async function endSessionAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    endMySession(await currentActor(), text(form, 'session')),
    (_, t) => (revalidatePath('/account/settings'), { problems: {}, message: t('details.signed-out') }),
  );
}

export async function makeFeedAction(): Promise<FormState> {
  return forForm(makeFeed(await currentActor()), ({ token }, t) => {
    revalidatePath('/account/settings');
    const address = `${config().SITE_URL}/feeds/${token}/feed.xml`;
    return { problems: {}, message: t('feed.made', { address }) };
  });
}

export async function revokeFeedAction(): Promise<FormState> {
  return forForm(
    revokeFeed(await currentActor()),
    (_, t) => (revalidatePath('/account/settings'), { problems: {}, message: t('feed.revoked') }),
  );
}

export async function setMailTopicAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { topic: text(form, 'topic'), isOff: text(form, 'isOff') === 'yes' };
  return forForm(setMyMailTopic(await currentActor(), input), (_, t) => {
    revalidatePath('/account/settings');
    return { problems: {}, message: t(input.isOff ? 'mail-off.turned-off' : 'mail-off.turned-on') };
  });
}

export async function signOutEverywhereAction(): Promise<void> {
  await signOutEverywhere(await currentActor());
  await dropSecrets('session', 'look');
  redirect('/');
}

export async function deleteAccountAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { password: text(form, 'password'), isSure: text(form, 'isSure') === 'yes' };
  return forForm(deleteAccount(await currentActor(), input), async () => {
    await dropSecrets('session', 'device', 'look');
    redirect('/');
  });
}

export async function askForNewPasskeyAction(_: FormState, form: FormData) {
  return withAsked(beginPasskey(await currentActor(), { password: text(form, 'password') }));
}

export async function addPasskeyAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { name: text(form, 'name'), answer: text(form, 'answer') };
  return forForm(
    addPasskey(await currentActor(), input),
    (_, t) => (revalidatePath('/account/settings'), { problems: {}, message: t('passkey.added') }),
  );
}

export async function removePasskeyAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { id: text(form, 'id'), password: text(form, 'password') };
  return forForm(
    removePasskey(await currentActor(), input),
    (_, t) => (revalidatePath('/account/settings'), { problems: {}, message: t('passkey.removed') }),
  );
}

const again = (): FormState => {
  revalidatePath('/account/settings');
  return { problems: {} };
};

export async function beginOneTimeAction(): Promise<FormState> {
  return forForm(beginOneTime(await currentActor()), again);
}

/** The recovery codes are in what the form says afterwards, and nowhere else. */
export async function confirmOneTimeAction(_: FormState, form: FormData): Promise<FormState> {
  const input = { code: text(form, 'code'), password: text(form, 'password') };
  return forForm(confirmOneTime(await currentActor(), input), recoveryCodes);
}

export async function renewRecoveryAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    renewRecoveryCodes(await currentActor(), { password: text(form, 'password') }),
    recoveryCodes,
  );
}

const recoveryCodes = ({ codes }: { codes: string[] }, t: Words): FormState => ({
  problems: {},
  message: t('one-time.keep', { codes: codes.join('\n') }),
});

export async function endOneTimeAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(endOneTime(await currentActor(), { password: text(form, 'password') }), again);
}
