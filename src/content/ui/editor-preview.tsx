'use client';

import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { Prose } from '@/core/content/prose';
import { SelectField } from '@/kit/field';
import { desk } from '@/words/desk';

export type PreviewInput = {
  id: string;
  type: string;
  title: string;
  summary: string;
  body: Prose;
  as: string;
};
export type ShowPreview = (input: PreviewInput) => Promise<ReactNode>;

type Props = {
  id: string;
  type: string;
  body: Prose;
  viewpoints: { id: string; name: string }[];
  show: ShowPreview;
};

/** How long nothing was typed before the preview follows, in ms. */
const REST = 700;

/** What is being written, as someone of the access map would be shown it; it follows what is typed. */
export function EditorPreview({ id, type, body, viewpoints, show }: Props) {
  const frame = useRef<HTMLElement>(null);
  const [as, setAs] = useState(viewpoints[0]?.id ?? '');
  const [shown, setShown] = useState<ReactNode>(null);
  const [state, setState] = useState<'fresh' | 'waiting' | 'lost'>('waiting');
  const asked = useRef(0);
  useEffect(() => {
    const turn = ++asked.current;
    const field = (name: string): string => {
      const found = frame.current?.closest('form')?.elements.namedItem(name);
      return found instanceof HTMLInputElement || found instanceof HTMLTextAreaElement ? found.value : '';
    };
    const timer = setTimeout(() => {
      setState('waiting');
      show({ id, type, title: field('title'), summary: field('summary'), body, as })
        .then((next) => {
          // Only the last that was asked for counts, in whatever order they come.
          if (turn !== asked.current) return;
          if (next !== null) setShown(next);
          setState(next === null ? 'lost' : 'fresh');
        })
        .catch(() => turn === asked.current && setState('lost'));
    }, REST);
    return () => clearTimeout(timer);
  }, [id, type, body, as, show]);
  return (
    <section
      ref={frame}
      aria-label={desk('desk-content.preview')}
      className="sticky top-4 max-h-[calc(100vh-2rem)] overflow-y-auto rounded-card border border-line bg-paper"
    >
      <div className="sticky top-0 z-10 flex flex-wrap items-end gap-3 border-b border-line bg-surface px-4 py-3">
        <SelectField
          name="previewAs"
          label={desk('desk-content.preview-as')}
          value={as}
          onChange={(event) => setAs(event.target.value)}
        >
          {viewpoints.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
        <p role="status" className="pb-2 text-[0.9375rem] text-muted">
          {state === 'waiting' && desk('desk-content.preview-updating')}
          {state === 'lost' && desk('desk-content.preview-lost')}
        </p>
      </div>
      <div className="p-5" inert>
        {shown}
      </div>
    </section>
  );
}
