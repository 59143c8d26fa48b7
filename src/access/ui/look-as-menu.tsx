'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Eye } from 'lucide-react';
import { useRef } from 'react';
import type { KeyCut } from '@/core/key-cut';
import { TierName } from '@/kit/key-cut';
import { panel, stripButton } from '@/kit/strip-button';
import { desk } from '@/words/desk';

/** Opens the site as someone else sees it. */
export function LookAsMenu({ viewpoints }: { viewpoints: { id: string; name: string; keyCut: KeyCut }[] }) {
  const form = useRef<HTMLFormElement>(null);
  const look = (as: string): void => {
    const field = form.current?.elements.namedItem('as');
    if (field instanceof HTMLInputElement) field.value = as;
    form.current?.submit();
  };
  const item = 'block w-full rounded-md px-3 py-2 text-left data-focus:bg-sunken';
  const entry = (as: string, content: React.ReactNode) => (
    <MenuItem key={as}>
      <button type="button" className={item} onClick={() => look(as)}>
        {content}
      </button>
    </MenuItem>
  );
  return (
    <>
      <form ref={form} action="/look" method="post" className="hidden">
        <input type="hidden" name="as" />
      </form>
      <Menu>
        <MenuButton className={stripButton} id="look-as-button">
          <Eye className="size-4 sm:hidden" aria-hidden />
          <span className="max-sm:sr-only">{desk('desk-access.look-as')}</span>{' '}
          <kbd className="hidden text-on-night-soft lg:inline">v</kbd>
        </MenuButton>
        <MenuItems anchor="bottom end" className={panel}>
          {entry('visitor', desk('desk-access.a-visitor'))}
          {entry('signed-in', desk('desk-access.a-member-without-a-tier'))}
          {viewpoints.map((tier) =>
            entry(`tier:${tier.id}`, <TierName cut={tier.keyCut} name={tier.name} />),
          )}
        </MenuItems>
      </Menu>
    </>
  );
}
