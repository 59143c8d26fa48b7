'use server';

import { redirect } from 'next/navigation';
import { afterSignIn } from '@/app/after-sign-in';
import { forForm, text, type FormState } from '@/app/form-state';
import { currentActor, setSecrets } from '@/app/session';
import { acceptInvite } from '@/people/services/staff';

export async function acceptInviteAction(_: FormState, form: FormData): Promise<FormState> {
  return forForm(
    acceptInvite(await currentActor(), text(form, 'token')),
    async ({ session, device, needsCode, hasPassword }) => {
      await setSecrets({ session, device });
      // What asks for the password again needs one.
      redirect(afterSignIn(needsCode, hasPassword ? '/desk' : '/account/settings'));
    },
  );
}
