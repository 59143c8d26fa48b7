'use client';

import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import type { ReactNode } from 'react';
import { ActionForm, type FormAction, type FormState } from '@/kit/action-form';

/** Answers with what the device is to sign, and the only address at which browsers do so. */
type Ask<Options> = (
  state: FormState,
  form: FormData,
) => Promise<FormState & { asked?: { options: Options; origin: string } }>;
export type AskToMake = Ask<PublicKeyCredentialCreationOptionsJSON>;
export type AskToShow = Ask<PublicKeyCredentialRequestOptionsJSON>;

/** What the form says where the device or the browser gives no passkey. `elsewhere` has `{origin}` in it. */
export type PasskeyWords = { cancelled: string; haveOne: string; noSupport: string; elsewhere: string };

type Props = {
  finish: FormAction;
  words: PasskeyWords;
  label: string;
  className?: string;
  emptyWhenDone?: boolean;
  children: ReactNode;
} & ({ way: 'make'; ask: AskToMake } | { way: 'show'; ask: AskToShow });

const wrong = (words: string): FormState => ({ problems: { '': words } });

/** A form that is sent with what a passkey of the device answers. */
export function PasskeyForm({ finish, words, children, label, className, emptyWhenDone, ...how }: Props) {
  const send: FormAction = async (state, form) => {
    // Loaded where it is used, and nowhere else.
    const { startAuthentication, startRegistration, browserSupportsWebAuthn } =
      await import('@simplewebauthn/browser');
    const answered = async <Options,>(
      ask: Ask<Options>,
      start: (given: { optionsJSON: Options }) => Promise<unknown>,
    ): Promise<FormState> => {
      const { asked, ...refused } = await ask(state, form);
      if (!asked) return refused;
      if (location.origin !== asked.origin) return wrong(words.elsewhere.replace('{origin}', asked.origin));
      if (!browserSupportsWebAuthn()) return wrong(words.noSupport);
      try {
        form.set('answer', JSON.stringify(await start({ optionsJSON: asked.options })));
      } catch (error) {
        const isKnown = error instanceof Error && error.name === 'InvalidStateError';
        return wrong(isKnown ? words.haveOne : words.cancelled);
      }
      return finish(state, form);
    };
    return how.way === 'make' ? answered(how.ask, startRegistration) : answered(how.ask, startAuthentication);
  };
  return (
    <ActionForm action={send} label={label} className={className} emptyWhenDone={emptyWhenDone}>
      {children}
    </ActionForm>
  );
}
