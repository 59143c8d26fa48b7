'use client';

import { useEffect, useRef, useState } from 'react';

type Props = { itemId: string; words: string };

/** How often at most the place is sent, in ms, and by how much it must have changed. */
const [PAUSE, STEP] = [1500, 40];

/** Where it leads back to: somewhere in the text, neither its beginning nor its end. */
const isWithin = (place: number): boolean => place >= 50 && place <= 920;

/**
 * Keeps how far a member has read in the text around it, and leads back there when they return. The place is asked for by
 * script: the page is the same for others who may read it.
 */
export function ReadingPlace({ itemId, words }: Props) {
  const mark = useRef<HTMLDivElement>(null);
  const [start, setStart] = useState<number | null>(null);
  const sent = useRef(0);
  useEffect(() => {
    const leaving = new AbortController();
    const ask = async (): Promise<void> => {
      const answer = await fetch(`/reading?item=${encodeURIComponent(itemId)}`, { signal: leaving.signal });
      const { place } = answer.ok ? ((await answer.json()) as { place: number }) : { place: 0 };
      // Who has gone on meanwhile is not led back.
      if (sent.current === 0 && isWithin(place)) setStart(place);
      sent.current ||= place;
    };
    ask().catch(() => undefined);
    return () => leaving.abort();
  }, [itemId]);
  useEffect(() => {
    const article = mark.current?.closest('article');
    if (!article) return;
    let wait: ReturnType<typeof setTimeout> | undefined;
    const placeNow = (): number => {
      const { top, height } = article.getBoundingClientRect();
      return Math.round(Math.min(1, Math.max(0, (window.innerHeight - top) / height)) * 1000);
    };
    const send = (): void => {
      const place = placeNow();
      if (Math.abs(place - sent.current) < STEP) return;
      sent.current = place;
      setStart(null);
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
  }, [itemId]);
  const back = (): void => {
    const article = mark.current?.closest('article');
    if (!article || start === null) return;
    const { top, height } = article.getBoundingClientRect();
    window.scrollTo({ top: window.scrollY + top + (height * start) / 1000 - window.innerHeight * 0.6 });
    setStart(null);
  };
  return (
    <div ref={mark} className="contents">
      {start !== null && (
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
