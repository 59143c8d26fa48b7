'use client';

import type { WayWords } from './pay-words';
import { useEffect, useImperativeHandle, useRef, useState, type Ref } from 'react';

export type CardAnswer = { token: string } | { problem: string };
export type CardFrameHandle = { tokenise(): Promise<CardAnswer> };

/** What the framed page of a gateway says. It hears `size` (say your height) and `tokenise` (the button was pressed). */
type FromFrame =
  | { cardFrame: 'ready' | 'filled' | 'enter' | 'asking' }
  | { cardFrame: 'height'; height: number }
  | { cardFrame: 'token'; token: string }
  | { cardFrame: 'problem'; message: string };
type Props = {
  url: string;
  origin: string;
  words: WayWords['frame'];
  onEnter: () => void;
  ref: Ref<CardFrameHandle>;
};

const PATIENCE_MS = 20_000;

/** The gateway's own page for the card. It is spoken to by messages, and only its own origin is listened to. */
export function CardFrame({ url, origin, words, onEnter, ref }: Props) {
  const frame = useRef<HTMLIFrameElement>(null);
  const waiting = useRef<((answer: CardAnswer) => void) | null>(null);
  /** Called when the payer is asked something in the frame: that takes as long as it takes. */
  const patient = useRef<() => void>(() => {});
  const [height, setHeight] = useState(190);

  useEffect(() => {
    const hear = (event: MessageEvent<FromFrame>): void => {
      if (event.origin !== origin || event.source !== frame.current?.contentWindow) return;
      const message = event.data;
      if (message.cardFrame === 'height') setHeight(Math.min(400, Math.max(120, message.height)));
      if (message.cardFrame === 'enter') onEnter();
      if (message.cardFrame === 'asking') patient.current();
      if (message.cardFrame === 'token') waiting.current?.({ token: message.token });
      if (message.cardFrame === 'problem') waiting.current?.({ problem: message.message });
    };
    window.addEventListener('message', hear);
    // The frame may have been ready before this page was: it is asked for its size once this page listens.
    frame.current?.contentWindow?.postMessage({ cardFrame: 'size' }, origin);
    return () => window.removeEventListener('message', hear);
  }, [origin, onEnter]);

  useImperativeHandle(ref, () => ({
    tokenise: () =>
      new Promise<CardAnswer>((resolve) => {
        const late = setTimeout(() => resolve({ problem: words.silent }), PATIENCE_MS);
        patient.current = () => clearTimeout(late);
        waiting.current = (answer) => {
          clearTimeout(late);
          waiting.current = null;
          resolve(answer);
        };
        frame.current?.contentWindow?.postMessage({ cardFrame: 'tokenise' }, origin);
      }),
  }));

  return (
    <>
      <iframe
        ref={frame}
        src={url}
        onLoad={(event) => event.currentTarget.contentWindow?.postMessage({ cardFrame: 'size' }, origin)}
        title={words.title}
        className="w-full border-0"
        style={{ height, colorScheme: 'normal' }}
      />
      <p className="mt-1 text-[0.9375rem] text-muted">{words.hint}</p>
    </>
  );
}
