'use client';

import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from '@headlessui/react';
import { Search } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { stripButton } from '@/kit/strip-button';
import { desk } from '@/words/desk';

type Hit = { path: string; title: string; kind: string };

/** Finds places, pages, posts, tiers and members by name (Ctrl K). */
export function FindDialog() {
  const [open, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const [hits, setHits] = useState<Hit[]>([]);
  const router = useRouter();

  useEffect(() => {
    const hear = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key === 'k') {
        event.preventDefault();
        setOpen(true);
      }
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, []);

  useEffect(() => {
    if (!open) return;
    const stop = new AbortController();
    const timer = setTimeout(() => {
      fetch(`/desk/find?q=${encodeURIComponent(query)}`, { signal: stop.signal })
        .then((response) => response.json() as Promise<Hit[]>)
        .then(setHits)
        .catch(() => {});
    }, 120);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [query, open]);

  const go = (hit: Hit | null): void => {
    if (!hit) return;
    setOpen(false);
    setQuery('');
    router.push(hit.path);
  };

  return (
    <>
      <button type="button" className={stripButton} onClick={() => setOpen(true)}>
        <Search className="size-4" aria-hidden />{' '}
        <span className="max-sm:sr-only">{desk('desk-frame.find')}</span>{' '}
        <kbd className="hidden text-on-night-soft lg:inline">{desk('desk-frame.ctrl-k')}</kbd>
      </button>
      <Dialog open={open} onClose={() => setOpen(false)} className="relative z-40">
        <div className="fixed inset-0 bg-black/50" aria-hidden />
        <div className="fixed inset-0 flex justify-center p-5 pt-[12vh]">
          <DialogPanel className="h-fit w-full max-w-xl overflow-hidden rounded-xl bg-surface text-ink">
            <Combobox onChange={go}>
              <ComboboxInput
                autoFocus
                aria-label={desk('desk-frame.find')}
                placeholder={desk('desk-frame.a-place-page-tier-or-member')}
                className="w-full bg-transparent px-5 py-4 text-lg focus:outline-none"
                onChange={(event) => setQuery(event.target.value)}
              />
              <ComboboxOptions static className="max-h-80 overflow-y-auto border-t border-line p-2">
                {hits.length === 0 && (
                  <p className="px-3 py-2 text-muted">{desk('desk-frame.nothing-found')}</p>
                )}
                {hits.map((hit) => (
                  <ComboboxOption
                    key={hit.path}
                    value={hit}
                    className="flex justify-between gap-4 rounded-md px-3 py-2 data-focus:bg-sunken"
                  >
                    <span>{hit.title}</span>
                    <span className="text-muted">{hit.kind}</span>
                  </ComboboxOption>
                ))}
              </ComboboxOptions>
            </Combobox>
          </DialogPanel>
        </div>
      </Dialog>
    </>
  );
}
