'use client';

import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useActionState, type ReactNode } from 'react';
import { Button } from './button';
import { inputClass } from './input-class';
import type { SignedIn } from './surroundings';

type Props = SignedIn & { onClose: () => void; onDone: () => void };

/** Signs in again within the page, after a session has ended. */
export default function SignInAgain({ email, action, words, onClose, onDone }: Props) {
  const [said, send, pending] = useActionState(async (before: string, form: FormData) => {
    const problem = await action(before, form);
    if (problem === '') onDone();
    return problem;
  }, '');
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-black/50" aria-hidden />
      <div className="fixed inset-0 grid place-items-center p-5">
        <DialogPanel className="w-full max-w-md rounded-xl bg-surface p-6 text-ink">
          <DialogTitle className="text-xl">{words.title}</DialogTitle>
          <form action={send} className="mt-4 grid gap-4">
            <input type="hidden" name="email" value={email} />
            <Label words={words.password}>
              <input
                type="password"
                name="password"
                autoComplete="current-password"
                autoFocus
                required
                className={inputClass}
                aria-invalid={said !== '' || undefined}
                aria-describedby="sign-in-again"
              />
            </Label>
            <p id="sign-in-again" role="alert" className="font-medium text-closed empty:hidden">
              {said}
            </p>
            <div className="flex flex-wrap gap-3">
              <Button type="submit" disabled={pending}>
                {pending ? words.busy : words.button}
              </Button>
              <Button look="quiet" onClick={onClose}>
                {words.cancel}
              </Button>
            </div>
          </form>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function Label({ words, children }: { words: string; children: ReactNode }) {
  return (
    <label className="grid gap-1">
      <span className="font-semibold">{words}</span>
      {children}
    </label>
  );
}
