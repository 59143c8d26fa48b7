'use client';

import clsx from 'clsx';
import { Link } from '@/kit/link';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Menu as MenuIcon } from 'lucide-react';
import { usePathname } from 'next/navigation';
import type { FormAction } from '@/kit/action-form';
import { panel, stripButton } from '@/kit/strip-button';
import { ClockPanel, type ClockReport } from './clock-panel';
import { FindDialog } from './find-dialog';
import { LookAsMenu, type LookChoice } from '@/access/ui/look-as-menu';
import { SiteMenu } from './site-menu';
import { Shortcuts } from './shortcuts';
import type { Right } from '@/core/staff';
import { desk } from '@/words/desk';

/** The places of the Desk; a place with a right is there for those who have it. */
export const PLACES: { path: string; name: string; right?: Right }[] = [
  { path: '/desk', name: desk('desk-frame.today') },
  { path: '/desk/content', name: desk('desk.content') },
  { path: '/desk/access', name: desk('desk.access') },
  { path: '/desk/tiers', name: desk('desk.tiers') },
  { path: '/desk/members', name: desk('desk.members'), right: 'see members' },
  { path: '/desk/money', name: desk('desk.money'), right: 'see money' },
];

type Props = {
  siteName: string;
  isTest: boolean;
  clock: string;
  behind: number;
  staffName: string;
  rights: readonly Right[];
  theme: 'light' | 'dark' | 'auto';
  viewpoints: LookChoice[];
  findMembers: (words: string) => Promise<{ id: string; name: string; email: string }[]>;
  moveClock: FormAction;
  clockReport: () => Promise<ClockReport | null>;
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
  rights,
  theme,
  viewpoints,
  findMembers,
  moveClock,
  clockReport,
  setTheme,
  signOut,
}: Props) {
  const path = usePathname();
  const places = PLACES.filter(({ right }) => right === undefined || rights.includes(right));
  const isHere = (place: string): boolean => (place === '/desk' ? path === place : path.startsWith(place));
  return (
    <header className="bg-night text-on-night" style={{ colorScheme: 'dark' }}>
      <a href="#desk-main" className="sr-only focus:not-sr-only focus:absolute focus:p-2">
        {desk('desk-frame.skip-to-content')}
      </a>
      <div className="mx-auto flex max-w-[96rem] items-center gap-x-3 px-5 py-1.5 lg:gap-x-5">
        <SiteMenu
          siteName={siteName}
          staffName={staffName}
          maySet={rights.includes('change settings')}
          theme={theme}
          setTheme={setTheme}
          signOut={signOut}
        />
        {isTest ? (
          <ClockPanel clock={clock} behind={behind} action={moveClock} report={clockReport} />
        ) : (
          <span className="figures hidden text-sm text-on-night-soft sm:inline">{clock}</span>
        )}
        <nav aria-label={desk('desk-frame.desk')} className="mx-auto hidden lg:block">
          <ul className="flex gap-1">
            {places.map((place) => (
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
          <LookAsMenu viewpoints={viewpoints} findMembers={findMembers} />
          <PlacesMenu places={places} isHere={isHere} />
        </div>
      </div>
      <Shortcuts places={places} />
      {isTest ? <div className="hem h-1.5" aria-hidden /> : <div className="h-px bg-night-soft" />}
    </header>
  );
}

/** The places of the Desk where the strip has no room for them. */
function PlacesMenu({ places, isHere }: { places: typeof PLACES; isHere: (place: string) => boolean }) {
  return (
    <Menu>
      <MenuButton
        className={clsx(stripButton, 'lg:hidden')}
        aria-label={desk('desk-frame.places-of-the-desk')}
      >
        <MenuIcon className="size-4" aria-hidden />
      </MenuButton>
      <MenuItems anchor="bottom end" className={panel}>
        {places.map((place) => (
          <MenuItem key={place.path}>
            <Link
              href={place.path}
              aria-current={isHere(place.path) ? 'page' : undefined}
              className="block rounded-md px-4 py-2 aria-[current]:font-semibold data-focus:bg-sunken"
            >
              {place.name}
            </Link>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
