'use client';

import { SiteLink } from '@/kit/site-link';
import { useEffect, useRef, useState } from 'react';
import { findWork } from '@/core/people/work';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { TextField } from '@/kit/field';
import type { OfferId } from '@/core/ids';

/** So many tries at a time, so that the page never stutters. */
const AT_ONCE = 400;
/** The site takes a form sent sooner for a program's; a person who is that quick waits for the rest of it. */
const LEAST_MS = 1_300;

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** The proof of work for a form stamp. */
async function workFor(stamp: string): Promise<string> {
  for (let from = 0; ; from += AT_ONCE) {
    const found = findWork(stamp, from, AT_ONCE);
    if (found) return found;
    await pause(0);
  }
}

/** The action, with the proof of work that the page computes while the form is filled in; a quicker person waits a moment. */
function useWorkedFor(action: FormAction, stamp: string): FormAction {
  const work = useRef<Promise<string>>(undefined);
  const seen = useRef(0);
  useEffect(() => {
    seen.current = performance.now();
    work.current = workFor(stamp);
  }, [stamp]);
  return async (state, form) => {
    form.set('work', await (work.current ?? workFor(stamp)));
    await pause(Math.max(0, seen.current + LEAST_MS - performance.now()));
    return action(state, form);
  };
}

/** What the form says; made on the server, so that no catalogue is sent to the browser. */
export type StartWords = Record<
  'label' | 'empty' | 'email' | 'hint' | 'busy' | 'button' | 'noScript' | 'havePassword' | 'signIn',
  string
>;

type Props = {
  words: StartWords;
  action: FormAction;
  offerId: OfferId;
  to: string;
  /** The name that was typed beside a join button; '' for none. */
  name: string;
  /** The signed moment at which this form was shown. */
  /** The code that is used; '' for none. */
  code: string;
  stamp: string;
  signInHref: string;
};

/** Where a visitor begins to join: with the address that a code is mailed to. */
export function StartForm({ words, action, offerId, to, name, code, stamp, signInHref }: Props) {
  // One stamp for as long as this page is open: what was worked out is for it.
  const [shown] = useState(stamp);
  const worked = useWorkedFor(action, shown);
  return (
    <ActionForm action={worked} label={words.label} className="grid content-start gap-5">
      <FormMessage />
      <input type="hidden" name="offerId" value={offerId} />
      <input type="hidden" name="to" value={to} />
      <input type="hidden" name="name" value={name} />
      <input type="hidden" name="code" value={code} />
      <input type="hidden" name="shown" value={shown} />
      {/* People never see this field; programs that fill in everything do. */}
      <div className="absolute -left-[200vw]" aria-hidden>
        <label>
          {words.empty}
          <input type="text" name="website" tabIndex={-1} autoComplete="off" />
        </label>
      </div>
      <TextField
        name="email"
        label={words.email}
        type="email"
        autoComplete="email"
        className="max-w-md"
        hint={words.hint}
        required
      />
      <SubmitButton busy={words.busy} className="min-h-12 text-base sm:w-fit sm:px-8">
        {words.button}
      </SubmitButton>
      <noscript>
        <p className="text-metered">{words.noScript}</p>
      </noscript>
      <p className="text-muted">
        {words.havePassword}{' '}
        <SiteLink className="text-spruce underline" href={signInHref}>
          {words.signIn}
        </SiteLink>
      </p>
    </ActionForm>
  );
}
