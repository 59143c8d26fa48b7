'use client';

import { X } from 'lucide-react';
import { Link } from '@/kit/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, type ReactNode } from 'react';
import { desk } from '@/words/desk';

type Props = { title: ReactNode; label: string; closeHref: string; children: ReactNode };

/**
 * A panel on the right that explains or edits without leaving the list. Whether it is open is in the address;
 * Escape closes it, and opening it puts the focus on its heading.
 */
export function Drawer({ title, label, closeHref, children }: Props) {
  const router = useRouter();
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), [label]);
  useEffect(() => {
    const close = (event: KeyboardEvent): void => {
      if (event.key === 'Escape' && !event.defaultPrevented) router.push(closeHref, { scroll: false });
    };
    window.addEventListener('keydown', close);
    return () => window.removeEventListener('keydown', close);
  }, [router, closeHref]);
  return (
    <aside
      aria-label={label}
      className="rounded-card border border-line bg-surface p-5 shadow-sm xl:sticky xl:top-4 xl:max-h-[calc(100vh-2rem)] xl:overflow-y-auto"
    >
      <div className="flex items-start justify-between gap-3">
        <h2 ref={heading} tabIndex={-1} className="text-xl outline-none">
          {title}
        </h2>
        <Link
          href={closeHref}
          scroll={false}
          aria-label={desk('desk-kit.close')}
          title={desk('desk-kit.close-escape')}
          className="grid size-9 flex-none place-items-center rounded-md text-muted hover:bg-sunken hover:text-ink"
        >
          <X className="size-5" aria-hidden />
        </Link>
      </div>
      {children}
    </aside>
  );
}
