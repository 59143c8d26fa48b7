'use client';

import clsx from 'clsx';
import { ChevronDown } from 'lucide-react';
import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';
import { Link } from '@/kit/link';
import { desk } from '@/words/desk';

type Place = { name: string; path: string; isOwners?: true };
type Group = { name: string; places: Place[] };

const at = (path: string): string => `/desk/settings${path}`;
const GROUPS: Group[] = [
  {
    name: desk('desk-settings.group-site'),
    places: [
      { name: desk('desk-settings.general'), path: at('') },
      { name: desk('desk-settings.theme'), path: at('/theme') },
      { name: desk('desk-settings.wording'), path: at('/words') },
      { name: desk('desk-settings.going-live-label'), path: at('/live'), isOwners: true },
    ],
  },
  {
    name: desk('desk.members'),
    places: [
      { name: desk('desk.account'), path: at('/account') },
      { name: desk('desk-settings.mail'), path: at('/mail') },
    ],
  },
  {
    name: desk('desk.money'),
    places: [
      { name: desk('desk-settings.tax-and-invoices'), path: at('/tax') },
      { name: desk('desk.failed-payments'), path: at('/dunning') },
    ],
  },
  {
    name: desk('desk-settings.staff'),
    places: [
      { name: desk('desk-settings.people-and-roles'), path: at('/staff'), isOwners: true },
      { name: desk('desk-settings.audit'), path: at('/audit'), isOwners: true },
    ],
  },
  {
    name: desk('desk-settings.group-programs'),
    places: [
      { name: desk('desk-settings.api'), path: at('/api'), isOwners: true },
      { name: desk('desk-settings.webhooks'), path: at('/webhooks'), isOwners: true },
      { name: desk('desk-settings.transfer'), path: at('/transfer'), isOwners: true },
    ],
  },
];

type Props = {
  /** Whether the one who looks may open what is for owners. */
  isOwner: boolean;
  children: ReactNode;
};

/** The settings: their pages in groups, as far as the one who looks may open them, beside the one that is open. */
export function SettingsFrame({ isOwner, children }: Props) {
  const path = usePathname();
  const groups = GROUPS.map((group) => ({
    ...group,
    places: group.places.filter(({ isOwners }) => isOwner || !isOwners),
  })).filter(({ places }) => places.length > 0);
  const here = groups
    .flatMap(({ places }) => places)
    .findLast((place) => path === place.path || (place.path !== at('') && path.startsWith(`${place.path}/`)));
  const list = <Places groups={groups} here={here} />;
  return (
    <div className="grid grid-cols-1 items-start gap-x-10 gap-y-5 lg:grid-cols-[12rem_minmax(0,1fr)]">
      <nav aria-label={desk('desk-settings.settings')} className="max-lg:hidden">
        {list}
      </nav>
      {/* Another page closes it. */}
      <details key={path} className="group rounded-lg border border-line bg-surface lg:hidden">
        <summary className="flex min-h-11 cursor-pointer list-none items-center justify-between gap-3 px-4 font-semibold">
          {desk('desk-settings.all-settings')}
          <ChevronDown className="size-4 group-open:rotate-180" aria-hidden />
        </summary>
        <nav aria-label={desk('desk-settings.settings')} className="border-t border-line p-4">
          {list}
        </nav>
      </details>
      <div>
        <h1 className="text-3xl" id="desk-main">
          {here?.name ?? desk('desk-settings.settings')}
        </h1>
        {children}
      </div>
    </div>
  );
}

function Places({ groups, here }: { groups: Group[]; here: Place | undefined }) {
  return (
    <ul className="grid gap-x-6 gap-y-5 max-lg:grid-cols-2">
      {groups.map((group) => (
        <li key={group.name}>
          <p className="px-3 text-sm font-semibold text-muted">{group.name}</p>
          <ul className="mt-1 grid">
            {group.places.map((place) => (
              <li key={place.path}>
                <Link
                  href={place.path}
                  aria-current={place === here ? 'page' : undefined}
                  className={clsx(
                    'block rounded-md px-3 py-1.5',
                    place === here ? 'bg-sunken font-semibold' : 'hover:bg-sunken',
                  )}
                >
                  {place.name}
                </Link>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}
