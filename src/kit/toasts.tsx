'use client';

import { startTransition, useEffect, type ReactNode } from 'react';
import { toast, Toaster } from 'sonner';
import { ToastProvider, type Undo } from './surroundings';
import { desk } from '@/words/desk';

/** Where short messages appear that need no answer, in the look of the Desk; what is inside can send them. */
export function Toasts({ children }: { children: ReactNode }) {
  return (
    <ToastProvider value={showToast}>
      {children}
      <Toaster
        position="bottom-center"
        duration={8_000}
        toastOptions={{
          unstyled: true,
          classNames: {
            toast:
              'flex w-full items-center font-sans text-base gap-4 rounded-lg bg-night px-4 py-3 text-on-night shadow-xl shadow-black/30',
            title: 'font-semibold',
            actionButton: 'ml-auto rounded-md border border-on-night/40 px-3 py-1 font-semibold',
          },
        }}
      />
    </ToastProvider>
  );
}

/** @param seconds where it needs longer than usual to read */
export function showToast(message: string, undo?: Undo, seconds = 8): void {
  toast(message, {
    duration: seconds * 1000,
    action: undo && {
      label: desk('desk-content.undo'),
      onClick: () =>
        startTransition(async () => {
          toast(await undo());
        }),
    },
  });
}

/** Says once what has just been done, after a form has led to another page; going back does not say it again. */
export function Said({ words, link }: { words: string; link?: { href: string; words: string } }) {
  useEffect(() => {
    const { pathname, search } = window.location;
    const query = new URLSearchParams(search);
    if (!query.has('saved')) return;
    query.delete('saved');
    window.history.replaceState(window.history.state, '', query.size > 0 ? `${pathname}?${query}` : pathname);
    toast(words, {
      id: words,
      action: link && { label: link.words, onClick: () => window.open(link.href, '_blank', 'noopener') },
    });
  }, [words, link]);
  return null;
}
