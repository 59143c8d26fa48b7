'use client';

import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { desk } from '@/words/desk';

const LIST = [
  [desk('desk-frame.ctrl-k'), desk('desk-frame.find-a-place-page-tier')],
  ['/', desk('desk-frame.filter-the-list-on-this-page')],
  ['v', desk('desk-frame.look-at-the-site-as')],
  ['n', desk('desk-frame.new-where-something-can-be')],
  [']', desk('desk-frame.open-the-rehearsal-clock')],
  ['1 … 6', desk('desk-frame.go-to-a-place')],
  ['?', desk('desk-frame.this-list')],
] as const;

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  );
}

/** The Desk's keys. They never take one that the browser has, and never act while someone types. */
export function Shortcuts({ places }: { places: readonly { path: string; name: string }[] }) {
  const [shown, setShown] = useState(false);
  const router = useRouter();
  const path = usePathname();
  useEffect(() => {
    const press = (selector: string): void => document.querySelector<HTMLElement>(selector)?.click();
    const hear = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const place = places[Number(event.key) - 1];
      if (place) router.push(place.path);
      else if (event.key === '?') setShown(true);
      else if (event.key === 'v') press('#look-as-button');
      else if (event.key === 'n') press('[data-new]');
      else if (event.key === ']') press('#clock-button');
      else if (event.key === '/') document.querySelector<HTMLElement>('[data-filter]')?.focus();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, [places, router, path]);
  return (
    <Dialog open={shown} onClose={() => setShown(false)} className="relative z-40">
      <div className="fixed inset-0 bg-black/50" aria-hidden />
      <div className="fixed inset-0 grid place-items-center p-5">
        <DialogPanel className="w-full max-w-md rounded-xl bg-surface p-6 text-ink">
          <DialogTitle className="text-xl">{desk('desk.keys')}</DialogTitle>
          <dl className="mt-3">
            {LIST.map(([key, does]) => (
              <div key={key} className="flex gap-4 border-t border-line py-2">
                <dt className="w-16 flex-none font-semibold">{key}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
