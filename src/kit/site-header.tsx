import { Lock } from 'lucide-react';
import Link from 'next/link';
import type { Words } from '@/words/speak';
import { LinkButton } from './button';
import { KeyGlyph } from './key-cut';

type Props = {
  t: Words;
  name: string;
  menu: { path: string; title: string; isOpen: boolean }[];
  isSignedIn: boolean;
  isStaff: boolean;
};

/** The site's own key, beside its name. */
const SITE_KEY = { notches: [2, 3, 1, 3], tint: 'brass' } as const;

export function SiteHeader({ t, name, menu, isSignedIn, isStaff }: Props) {
  return (
    <header className="border-b border-line/70 print:hidden">
      <div className="mx-auto flex max-w-6xl flex-wrap items-center gap-x-6 gap-y-2 px-5 py-4">
        <Link href="/" className="flex items-center gap-2.5 font-display text-xl font-bold">
          <KeyGlyph cut={{ notches: [...SITE_KEY.notches], tint: SITE_KEY.tint }} size={20} />
          {name}
        </Link>
        <nav
          aria-label={t('site.nav')}
          className="order-last w-full relative overflow-x-auto sm:order-none sm:w-auto"
        >
          <ul className="flex gap-5 whitespace-nowrap">
            <li>
              <Link href="/posts" className="hover:underline">
                {t('site.posts')}
              </Link>
            </li>
            {menu.map((entry) => (
              <li key={entry.path}>
                <Link
                  href={entry.path}
                  prefetch={false}
                  className="inline-flex items-center gap-1 hover:underline"
                >
                  {entry.title}
                  {!entry.isOpen && <Lock className="size-3.5 text-muted" aria-label={t('site.closed')} />}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        <div className="ml-auto flex items-center gap-4">
          {isStaff && (
            <Link href="/desk" className="hover:underline">
              {t('site.desk')}
            </Link>
          )}
          {isSignedIn ? (
            <Link href="/account" className="font-semibold hover:underline">
              {t('site.account')}
            </Link>
          ) : (
            <>
              <Link href="/sign-in" className="hover:underline">
                {t('site.sign-in')}
              </Link>
              {/* A menu that leads to joining already needs no second button. */}
              {!menu.some(({ path }) => /^\/join(\/|$)/.test(path)) && (
                <LinkButton href="/join">{t('site.join')}</LinkButton>
              )}
            </>
          )}
        </div>
      </div>
    </header>
  );
}
