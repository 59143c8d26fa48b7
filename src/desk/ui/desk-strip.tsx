'use client';

import clsx from 'clsx';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import type { KeyCut } from '@/core/key-cut';
import type { FormAction } from '@/kit/action-form';
import { ClockPanel } from './clock-panel';
import { FindDialog } from './find-dialog';
import { LookAsMenu } from '@/access/ui/look-as-menu';
import { SiteMenu } from '@/content/ui/site-menu';
import { Shortcuts } from './shortcuts';

export const PLACES = [
  { path: '/desk', name: 'Today' },
  { path: '/desk/content', name: 'Content' },
  { path: '/desk/access', name: 'Access' },
  { path: '/desk/tiers', name: 'Tiers' },
  { path: '/desk/members', name: 'Members' },
  { path: '/desk/money', name: 'Money' },
] as const;

type Props = {
  siteName: string;
  isTest: boolean;
  clock: string;
  behind: number;
  staffName: string;
  isOwner: boolean;
  theme: 'light' | 'dark' | 'auto';
  viewpoints: { id: string; name: string; keyCut: KeyCut }[];
  moveClock: FormAction;
  setTheme: (form: FormData) => Promise<void>;
  signOut: () => Promise<void>;
};

/** The strip along the top of the Desk: where one is, what time it is, whether money is real. */
export function DeskStrip({
  siteName,
  isTest,
  clock,
  behind,
  staffName,
  isOwner,
  theme,
  viewpoints,
  moveClock,
  setTheme,
  signOut,
}: Props) {
  const path = usePathname();
  const isHere = (place: string): boolean => (place === '/desk' ? path === place : path.startsWith(place));
  return (
    <header className="bg-night text-on-night" style={{ colorScheme: 'dark' }}>
      <a href="#desk-main" className="sr-only focus:not-sr-only focus:absolute focus:p-2">
        To the page
      </a>
      <div className="mx-auto flex max-w-[96rem] flex-wrap items-center gap-x-5 gap-y-1 px-5 py-1.5">
        <SiteMenu
          siteName={siteName}
          staffName={staffName}
          isOwner={isOwner}
          theme={theme}
          setTheme={setTheme}
          signOut={signOut}
        />
        {isTest ? (
          <ClockPanel clock={clock} behind={behind} action={moveClock} />
        ) : (
          <span className="figures text-sm text-on-night-soft">{clock}</span>
        )}
        <nav
          aria-label="Desk"
          className="order-last w-full overflow-x-auto lg:order-none lg:mx-auto lg:w-auto"
        >
          <ul className="flex gap-1">
            {PLACES.map((place) => (
              <li key={place.path}>
                <Link
                  href={place.path}
                  aria-current={isHere(place.path) ? 'page' : undefined}
                  className={clsx(
                    'block rounded-md px-3 py-1.5 font-display text-[0.9688rem] font-medium',
                    isHere(place.path)
                      ? 'bg-night-soft text-on-night'
                      : 'text-on-night-soft hover:text-on-night',
                  )}
                >
                  {place.name}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        <div className="ml-auto flex items-center gap-2 lg:ml-0">
          <FindDialog />
          <LookAsMenu viewpoints={viewpoints} />
        </div>
      </div>
      <Shortcuts places={PLACES} />
      {isTest ? <div className="hem h-1.5" aria-hidden /> : <div className="h-px bg-night-soft" />}
    </header>
  );
}
