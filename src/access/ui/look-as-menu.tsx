'use client';

import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Eye } from 'lucide-react';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import type { KeyCut } from '@/core/key-cut';
import { TierName } from '@/kit/key-cut';
import { inputClass } from '@/kit/input-class';
import { panel, stripButton } from '@/kit/strip-button';
import { useFoundMembers, type FindMembers } from './member-search';
import { desk } from '@/words/desk';

export type LookChoice = { id: string; name: string; keyCut: KeyCut | null };
type Props = {
  viewpoints: LookChoice[];
  /** Members whose name or address has some words. */
  findMembers: FindMembers;
};

const PLAIN: Partial<Record<string, string>> = {
  visitor: desk('desk-access.a-visitor'),
  'signed-in': desk('desk-access.a-member-without-a-tier'),
};

const nameOf = ({ id, name }: LookChoice): string =>
  PLAIN[id] ??
  (id.startsWith('group:')
    ? desk('desk-access.a-member-of', { name })
    : id.startsWith('pass:')
      ? desk('desk-access.a-visitor-with', { name })
      : name);

/** Opens the site as someone else sees it, today or on another day, at the page one is on. */
export function LookAsMenu({ viewpoints, findMembers }: Props) {
  const path = usePathname();
  const item = 'block w-full rounded-md px-3 py-2 text-left hover:bg-sunken focus:bg-sunken';
  return (
    <Popover>
      <PopoverButton className={stripButton} id="look-as-button">
        <Eye className="size-4 sm:hidden" aria-hidden />
        <span className="max-sm:sr-only">{desk('desk-access.look-as')}</span>{' '}
        <kbd className="hidden text-on-night-soft lg:inline">v</kbd>
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className={`${panel} w-80 max-w-[calc(100vw-1.5rem)]`} focus>
        <form action="/look" method="post">
          <input type="hidden" name="to" value={path} />
          <ul>
            {viewpoints.map((one) => (
              <li key={one.id}>
                <button name="as" value={one.id} className={item}>
                  {one.keyCut ? (
                    <TierName cut={one.keyCut} name={desk('desk-access.a-new-holder', { name: one.name })} />
                  ) : (
                    nameOf(one)
                  )}
                </button>
              </li>
            ))}
          </ul>
          <MemberChoices find={findMembers} item={item} />
          <label className="flex items-center justify-between gap-3 border-t border-line px-3 pt-3 pb-1">
            <span>{desk('desk-access.on-the-day')}</span>
            <input type="date" name="on" className={`${inputClass} !w-44 py-1`} />
          </label>
          <p className="px-3 pb-2 text-sm text-muted">{desk('desk-access.on-the-day-hint')}</p>
        </form>
      </PopoverPanel>
    </Popover>
  );
}

/** One member, found by typing. */
function MemberChoices({ find, item }: { find: FindMembers; item: string }) {
  const [words, setWords] = useState('');
  const found = useFoundMembers(words, find);
  return (
    <div className="border-t border-line px-3 py-3">
      <label className="grid gap-1.5">
        <span>{desk('desk-access.one-member')}</span>
        <input
          type="search"
          value={words}
          maxLength={100}
          onChange={(event) => setWords(event.target.value)}
          // Return would press the first viewpoint.
          onKeyDown={(event) => event.key === 'Enter' && event.preventDefault()}
          placeholder={desk('desk-access.name-or-email')}
          className={`${inputClass} py-1`}
          autoComplete="off"
        />
      </label>
      <ul className="mt-1" role="status">
        {found?.map(({ id, name, email }) => (
          <li key={id}>
            <button name="as" value={`member:${id}`} className={item}>
              {name}
              <span className="block truncate text-sm text-muted">{email}</span>
            </button>
          </li>
        ))}
        {found?.length === 0 && (
          <li className="px-3 py-2 text-muted">{desk('desk-access.no-such-member')}</li>
        )}
      </ul>
    </div>
  );
}
