'use client';

import { createContext, use, useEffect, useId } from 'react';

/** What the pages around a form offer it. Kept small: what they need for it is loaded where they offer it. */

export type Guard = { tell: (form: string, isChanged: boolean) => void; forget: () => void };
const GuardContext = createContext<Guard | null>(null);
export const GuardProvider = GuardContext.Provider;

/** Tells the guard around it, where there is one, whether a form is changed. */
export function useChanged(): (isChanged: boolean) => void {
  const guard = use(GuardContext);
  const id = useId();
  useEffect(() => () => guard?.tell(id, false), [guard, id]);
  return (isChanged) => guard?.tell(id, isChanged);
}

/** What an Undo does: the answer is what to say then. */
export type Undo = () => Promise<string>;
export type Toast = (message: string, undo?: Undo) => void;
const ToastContext = createContext<Toast>(() => {});
export const ToastProvider = ToastContext.Provider;
export const useToast = (): Toast => use(ToastContext);

export type SignInAgainWords = Record<'title' | 'password' | 'button' | 'busy' | 'cancel', string>;
/** Answers what is wrong, or '' where they are signed in. */
export type SignInAgainAction = (said: string, form: FormData) => Promise<string>;
/** Whose pages these are: nobody else can sign in for what they typed. */
export type SignedIn = { email: string; action: SignInAgainAction; words: SignInAgainWords };
const SignedInContext = createContext<SignedIn | null>(null);
export const SignInAgainProvider = SignedInContext.Provider;
export const useSignedIn = (): SignedIn | null => use(SignedInContext);
