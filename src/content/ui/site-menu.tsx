'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import Link from 'next/link';
import { panel } from '@/kit/strip-button';

const item = 'block w-full rounded-md px-3 py-2 text-left data-focus:bg-sunken';
const THEMES = [
  { id: 'auto', name: 'System' },
  { id: 'light', name: 'Light' },
  { id: 'dark', name: 'Dark' },
] as const;

type Props = {
  siteName: string;
  staffName: string;
  isOwner: boolean;
  theme: 'light' | 'dark' | 'auto';
  setTheme: (form: FormData) => Promise<void>;
  signOut: () => Promise<void>;
};

/** Behind the site's name: the site itself, the look of the Desk, the way out. */
export function SiteMenu({ siteName, staffName, isOwner, theme, setTheme, signOut }: Props) {
  const choose = (id: string) => (): void => {
    const form = new FormData();
    form.set('theme', id);
    void setTheme(form);
  };
  return (
    <Menu>
      <MenuButton className="flex min-w-0 items-center gap-1.5 py-1 font-display text-lg font-bold">
        <span className="truncate">{siteName}</span>
        <ChevronDown className="size-4 flex-none text-on-night-soft" aria-hidden />
      </MenuButton>
      <MenuItems anchor="bottom start" className={panel}>
        <MenuItem>
          <Link href="/" className={item}>
            View the site
          </Link>
        </MenuItem>
        {isOwner && (
          <MenuItem>
            <Link href="/desk/settings" className={item}>
              Settings
            </Link>
          </MenuItem>
        )}
        <MenuItem>
          <Link href="/desk/notifications" className={item}>
            Email notifications
          </Link>
        </MenuItem>
        <p className="mt-1 border-t border-line px-3 pt-2 text-sm text-muted">Theme</p>
        {THEMES.map((t) => (
          <MenuItem key={t.id}>
            <button type="button" className={item} onClick={choose(t.id)} aria-current={t.id === theme}>
              {t.name} {t.id === theme && <span className="text-muted">(current)</span>}
            </button>
          </MenuItem>
        ))}
        <p className="mt-1 border-t border-line px-3 pt-2 text-sm text-muted">{staffName}</p>
        <MenuItem>
          <button type="button" className={item} onClick={() => void signOut()}>
            Sign out
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}
