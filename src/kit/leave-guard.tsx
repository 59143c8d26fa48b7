'use client';

import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useRouter } from 'next/navigation';
import { Button } from './button';
import { GuardProvider, type Guard } from './surroundings';
import { desk } from '@/words/desk';

/** The browser's place in its history, if it can tell (HTML Living Standard, Navigation API). */
const placeInHistory = (): number | undefined =>
  (window as { navigation?: { currentEntry?: { index: number } } }).navigation?.currentEntry?.index;

/** The address that a click leads to within this window; null for any other click. */
function addressOf(event: MouseEvent): URL | null {
  if (event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return null;
  const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
  if (!(link instanceof HTMLAnchorElement) || link.target === '_blank' || link.hasAttribute('download'))
    return null;
  const url = new URL(link.href);
  const isHere = url.pathname === location.pathname && url.search === location.search;
  return isHere && url.hash ? null : url;
}

/** Asks before a page with a changed form is left: by a link, by the browser's buttons, or by closing the window. */
export function LeaveGuard({ children }: { children: ReactNode }) {
  const changed = useRef(new Set<string>());
  const place = useRef<number>(undefined);
  const isReturning = useRef(false);
  const [leave, setLeave] = useState<(() => void) | null>(null);
  const router = useRouter();
  const guard = useMemo(
    (): Guard => ({
      tell: (form, isChanged) => {
        if (isChanged) changed.current.add(form);
        else changed.current.delete(form);
      },
      forget: () => changed.current.clear(),
    }),
    [],
  );

  useEffect(() => {
    const stop = (event: Event): void => {
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    const onClose = (event: BeforeUnloadEvent): void => {
      if (changed.current.size > 0) event.preventDefault();
    };
    const onClick = (event: MouseEvent): void => {
      const url = changed.current.size > 0 ? addressOf(event) : null;
      if (!url) return;
      stop(event);
      setLeave(() => () => {
        const path = `${url.pathname}${url.search}${url.hash}`;
        if (url.origin === location.origin && path.startsWith('/desk')) router.push(path);
        else location.assign(url);
      });
    };
    const onMove = (event: PopStateEvent): void => {
      const now = placeInHistory();
      if (isReturning.current) {
        isReturning.current = false;
        return stop(event);
      }
      if (changed.current.size === 0) {
        place.current = now;
        return;
      }
      // Back to the form before anything else notices; forward again once the person agrees.
      const steps = now !== undefined && place.current !== undefined ? now - place.current : -1;
      stop(event);
      if (steps === 0) return;
      isReturning.current = true;
      history.go(-steps);
      setLeave(() => () => history.go(steps));
    };
    const onInput = (): void => void (place.current = placeInHistory());
    window.addEventListener('beforeunload', onClose);
    window.addEventListener('popstate', onMove, true);
    document.addEventListener('click', onClick, true);
    document.addEventListener('input', onInput, true);
    return () => {
      window.removeEventListener('beforeunload', onClose);
      window.removeEventListener('popstate', onMove, true);
      document.removeEventListener('click', onClick, true);
      document.removeEventListener('input', onInput, true);
    };
  }, [router]);

  return (
    <GuardProvider value={guard}>
      {children}
      <Dialog open={leave !== null} onClose={() => setLeave(null)} className="relative z-50">
        <div className="fixed inset-0 bg-black/50" aria-hidden />
        <div className="fixed inset-0 grid place-items-center p-5">
          <DialogPanel className="w-full max-w-md rounded-xl bg-surface p-6 text-ink">
            <DialogTitle className="text-xl">{desk('desk-kit.leave-question')}</DialogTitle>
            <p className="mt-2">{desk('desk-kit.leave-words')}</p>
            <div className="mt-5 flex flex-wrap gap-3">
              <Button onClick={() => setLeave(null)}>{desk('desk-kit.stay')}</Button>
              <Button
                look="bad"
                onClick={() => {
                  guard.forget();
                  setLeave(null);
                  leave?.();
                }}
              >
                {desk('desk-kit.leave')}
              </Button>
            </div>
          </DialogPanel>
        </div>
      </Dialog>
    </GuardProvider>
  );
}
