'use client';

import { useEffect, useImperativeHandle, useRef, useState, type Ref } from 'react';

export type CardAnswer = { token: string } | { problem: string };
export type CardFrameHandle = { tokenise(): Promise<CardAnswer> };

type FromFrame =
  | { curlew: 'ready' | 'filled' | 'enter' | 'asking' }
  | { curlew: 'height'; height: number }
  | { curlew: 'token'; token: string }
  | { curlew: 'problem'; message: string };
type Props = { url: string; origin: string; gateway: string; onEnter: () => void; ref: Ref<CardFrameHandle> };

const PATIENCE_MS = 20_000;

/** The gateway's own page for the card. It is spoken to by messages, and only its own origin is listened to. */
export function CardFrame({ url, origin, gateway, onEnter, ref }: Props) {
  const frame = useRef<HTMLIFrameElement>(null);
  const waiting = useRef<((answer: CardAnswer) => void) | null>(null);
  /** Called when the payer is asked something in the frame: that takes as long as it takes. */
  const patient = useRef<() => void>(() => {});
  const [height, setHeight] = useState(190);

  useEffect(() => {
    const hear = (event: MessageEvent<FromFrame>): void => {
      if (event.origin !== origin || event.source !== frame.current?.contentWindow) return;
      const message = event.data;
      if (message.curlew === 'height') setHeight(Math.min(400, Math.max(120, message.height)));
      if (message.curlew === 'enter') onEnter();
      if (message.curlew === 'asking') patient.current();
      if (message.curlew === 'token') waiting.current?.({ token: message.token });
      if (message.curlew === 'problem') waiting.current?.({ problem: message.message });
    };
    window.addEventListener('message', hear);
    // The frame may have been ready before this page was: it is asked for its size once somebody listens.
    frame.current?.contentWindow?.postMessage({ curlew: 'size' }, origin);
    return () => window.removeEventListener('message', hear);
  }, [origin, onEnter]);

  useImperativeHandle(ref, () => ({
    tokenise: () =>
      new Promise<CardAnswer>((resolve) => {
        const late = setTimeout(
          () =>
            resolve({ problem: `${gateway} does not answer. Nothing was charged; try again in a moment.` }),
          PATIENCE_MS,
        );
        patient.current = () => clearTimeout(late);
        waiting.current = (answer) => {
          clearTimeout(late);
          waiting.current = null;
          resolve(answer);
        };
        frame.current?.contentWindow?.postMessage({ curlew: 'tokenise' }, origin);
      }),
  }));

  return (
    <>
      <iframe
        ref={frame}
        src={url}
        onLoad={(event) => event.currentTarget.contentWindow?.postMessage({ curlew: 'size' }, origin)}
        title={`Card details, kept by ${gateway}`}
        className="w-full border-0"
        style={{ height, colorScheme: 'normal' }}
      />
      <p className="mt-1 text-[0.9375rem] text-muted">
        This form belongs to {gateway}. The number goes to them and never to this site.
      </p>
    </>
  );
}
