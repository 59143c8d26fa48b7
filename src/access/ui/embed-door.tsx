'use client';

import { useEffect, useState } from 'react';
import { buttonClass } from '@/kit/button';

const EVERY_MS = 2_000;
const AT_MOST_MS = 10 * 60_000;

type Props = { id: string; ask: string; words: { signIn: string; hint: string; waiting: string } };

/** In a frame: opens a window in which its reader signs in, and shows the item once they have allowed it there. */
export function EmbedDoor({ id, ask, words }: Props) {
  const [since, setSince] = useState<number | null>(null);
  useEffect(() => {
    if (since === null) return;
    const path = `/embed/${encodeURIComponent(id)}/state?ask=${encodeURIComponent(ask)}`;
    const timer = setInterval(() => {
      if (Date.now() - since > AT_MOST_MS) return setSince(null);
      void fetch(path)
        .then((answer) => answer.status === 200 && location.reload())
        // The connection may be back at the next turn.
        .catch(() => {});
    }, EVERY_MS);
    return () => clearInterval(timer);
  }, [since, id, ask]);
  return (
    <div className="mt-5">
      <a
        href={`/let-in?ask=${encodeURIComponent(ask)}`}
        target="_blank"
        rel="noopener"
        className={buttonClass('main')}
        onClick={() => setSince(Date.now())}
      >
        {words.signIn}
      </a>
      <p className="mt-2 text-[0.9375rem] text-muted" role="status">
        {since === null ? words.hint : `${words.waiting} ${words.hint}`}
      </p>
    </div>
  );
}
