'use client';

import { useEffect, useRef, useState } from 'react';

type Props = { itemId: string; start: number; words: string };

/** How often at most the place is sent, in ms, and by how much it must have changed. */
const [PAUSE, STEP] = [1500, 40];

/** Keeps how far a member has read in the text around it, and leads back there when they return. */
export function ReadingPlace({ itemId, start, words }: Props) {
  const mark = useRef<HTMLDivElement>(null);
  const [isOffered, setOffered] = useState(start >= 50 && start <= 920);
  useEffect(() => {
    const article = mark.current?.closest('article');
    if (!article) return;
    let sent = start;
    let wait: ReturnType<typeof setTimeout> | undefined;
    const placeNow = (): number => {
      const { top, height } = article.getBoundingClientRect();
      return Math.round(Math.min(1, Math.max(0, (window.innerHeight - top) / height)) * 1000);
    };
    const send = (): void => {
      const place = placeNow();
      if (Math.abs(place - sent) < STEP) return;
      sent = place;
      setOffered(false);
      void fetch('/reading', {
        method: 'POST',
        keepalive: true,
        body: JSON.stringify({ itemId, place }),
      }).catch(() => undefined);
    };
    const onScroll = (): void => {
      clearTimeout(wait);
      wait = setTimeout(send, PAUSE);
    };
    window.addEventListener('scroll', onScroll, { passive: true });
    return () => {
      clearTimeout(wait);
      window.removeEventListener('scroll', onScroll);
    };
  }, [itemId, start]);
  const back = (): void => {
    const article = mark.current?.closest('article');
    if (!article) return;
    const { top, height } = article.getBoundingClientRect();
    window.scrollTo({ top: window.scrollY + top + (height * start) / 1000 - window.innerHeight * 0.6 });
    setOffered(false);
  };
  return (
    <div ref={mark} className="contents">
      {isOffered && (
        <button
          type="button"
          onClick={back}
          className="fixed bottom-16 left-1/2 z-20 -translate-x-1/2 rounded-full bg-night px-5 py-2 font-semibold text-on-night shadow-lg"
        >
          {words}
        </button>
      )}
    </div>
  );
}
