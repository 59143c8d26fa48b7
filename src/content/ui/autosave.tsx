'use client';

import { useEffect, useRef, useState } from 'react';
import type { Prose } from '@/core/content/prose';
import { useDeskWords } from '@/kit/desk-words';
import type { Instant } from '@/core/instants';
import { desk } from '@/words/desk';

export type DraftInput = {
  key: string;
  baseVersion: number | null;
  title: string;
  summary: string;
  body: Prose;
};
/** Answers when it was saved; null where it could not be. */
export type SaveDraft = (draft: DraftInput) => Promise<Instant | null>;

/** How long someone has to rest before what they typed is saved, in ms. */
const REST = 2500;

type Props = { itemKey: string; baseVersion: number | null; body: Prose; save: SaveDraft };

/** Saves what is being written, for its writer alone, whenever they rest; says when it last did. */
export function Autosave({ itemKey, baseVersion, body, save }: Props) {
  const [savedAt, setSavedAt] = useState<Instant | 'failed' | null>(null);
  const mark = useRef<HTMLParagraphElement>(null);
  const latest = useRef(body);
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  const t = useDeskWords();
  const begin = useRef((): void => undefined);
  useEffect(() => {
    begin.current = () => {
      clearTimeout(wait.current);
      wait.current = setTimeout(() => {
        const form = mark.current?.closest('form');
        if (!form) return;
        const data = new FormData(form);
        const text = (name: string): string => {
          const value = data.get(name);
          return typeof value === 'string' ? value : '';
        };
        save({
          key: itemKey,
          baseVersion,
          title: text('title').slice(0, 200),
          summary: text('summary').slice(0, 400),
          body: latest.current,
        })
          .then((at) => setSavedAt(at ?? 'failed'))
          .catch(() => setSavedAt('failed'));
      }, REST);
    };
  }, [itemKey, baseVersion, save]);
  useEffect(() => {
    if (latest.current !== body) begin.current();
    latest.current = body;
  }, [body]);
  useEffect(() => {
    const form = mark.current?.closest('form');
    const onInput = (): void => begin.current();
    const stop = (): void => clearTimeout(wait.current);
    form?.addEventListener('input', onInput);
    // Saved whole, there is nothing left to save beside it.
    form?.addEventListener('submit', stop);
    return () => {
      stop();
      form?.removeEventListener('input', onInput);
      form?.removeEventListener('submit', stop);
    };
  }, []);
  return (
    <p ref={mark} role="status" className="min-h-6 text-[0.9375rem] text-muted">
      {savedAt === 'failed' && desk('desk-content.draft-not-saved')}
      {savedAt && savedAt !== 'failed' && desk('desk-content.draft-safe', { time: t.dateTime(savedAt) })}
    </p>
  );
}
