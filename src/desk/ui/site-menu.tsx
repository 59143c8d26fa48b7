'use client';

import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import { Link } from '@/kit/link';
import { panel } from '@/kit/strip-button';
import { desk } from '@/words/desk';

const item = 'block w-full rounded-md px-3 py-2 text-left data-focus:bg-sunken';
const THEMES = [
  { id: 'auto', name: desk('desk-kit.theme-system') },
  { id: 'light', name: desk('desk-kit.theme-light') },
  { id: 'dark', name: desk('desk-kit.theme-dark') },
] as const;

type Props = {
  siteName: string;
  staffName: string;
  /** Whether the settings are theirs to change. */
  maySet: boolean;
  theme: 'light' | 'dark' | 'auto';
  setTheme: (form: FormData) => Promise<void>;
  signOut: () => Promise<void>;
};

/** Behind the site's name: the site itself, the look of the Desk, the way out. */
export function SiteMenu({ siteName, staffName, maySet, theme, setTheme, signOut }: Props) {
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
            {desk('desk-kit.view-site')}
          </Link>
        </MenuItem>
        {maySet && (
          <MenuItem>
            <Link href="/desk/settings" className={item}>
              {desk('desk-settings.settings')}
            </Link>
          </MenuItem>
        )}
        <MenuItem>
          <Link href="/desk/notifications" className={item}>
            {desk('desk-settings.email-notifications')}
          </Link>
        </MenuItem>
        <p className="mt-1 border-t border-line px-3 pt-2 text-sm text-muted">{desk('desk-kit.theme')}</p>
        {THEMES.map((t) => (
          <MenuItem key={t.id}>
            <button type="button" className={item} onClick={choose(t.id)} aria-current={t.id === theme}>
              {t.name} {t.id === theme && <span className="text-muted">{desk('desk-kit.current')}</span>}
            </button>
          </MenuItem>
        ))}
        <p className="mt-1 border-t border-line px-3 pt-2 text-sm text-muted">{staffName}</p>
        <MenuItem>
          <button type="button" className={item} onClick={() => void signOut()}>
            {desk('desk-kit.sign-out')}
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}
