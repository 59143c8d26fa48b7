'use client';

import { createContext, use, useRef, useState, type ReactNode } from 'react';
import { SignInAgainProvider, type SignedIn } from '@/kit/surroundings';

type Own = { name: string; email: string };
const OwnContext = createContext<Own | null>(null);

type Props = {
  /** In its words, `{email}` is the place of the address. */
  again: SignedIn;
  children: ReactNode;
};

/** Around the forms of comments. Who writes is asked for once someone begins to: the page is the same for others. */
export function CommentWriter({ again, children }: Props) {
  const [own, setOwn] = useState<Own | null>(null);
  const isAsked = useRef(false);
  const ask = async (): Promise<void> => {
    if (isAsked.current) return;
    isAsked.current = true;
    const answer = await fetch('/account/me');
    if (answer.ok) setOwn((await answer.json()) as Own);
  };
  const password = again.words.password.replace('{email}', () => own?.email ?? '');
  return (
    <div className="contents" onFocus={() => void ask().catch(() => undefined)}>
      <OwnContext value={own}>
        <SignInAgainProvider
          value={own && { ...again, email: own.email, words: { ...again.words, password } }}
        >
          {children}
        </SignInAgainProvider>
      </OwnContext>
    </div>
  );
}

/** Under which name a comment is shown: in `known`, `{name}` is its place; `unknown` until it is known. */
export function ShownAs({ known, unknown, unnamed }: Record<'known' | 'unknown' | 'unnamed', string>) {
  const own = use(OwnContext);
  return own ? known.replace('{name}', () => own.name || unnamed) : unknown;
}
