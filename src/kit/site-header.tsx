import { ChevronDown, Lock, Search } from 'lucide-react';
import Link from 'next/link';
import type { Words } from '@/words/speak';
import { LinkButton } from './button';
import { KeyGlyph } from './key-cut';

/** An entry of the menu; one without a path only holds those below it. */
export type HeaderEntry = {
  id: string;
  kind: string;
  title: string;
  path: string | null;
  isOpen: boolean;
  below: HeaderEntry[];
};

type Props = {
  t: Words;
  name: string;
  menu: HeaderEntry[];
  isSignedIn: boolean;
  isStaff: boolean;
  signOut: () => Promise<void>;
};

/** The site's own key, beside its name. */
const SITE_KEY = { notches: [2, 3, 1, 3], tint: 'brass' } as const;

const all = (entries: HeaderEntry[]): HeaderEntry[] =>
  entries.flatMap((entry) => [entry, ...all(entry.below)]);

export function SiteHeader({ t, name, menu, isSignedIn, isStaff, signOut }: Props) {
  // What the menu leads to already needs no second way.
  const has = (kind: string): boolean => all(menu).some((entry) => entry.kind === kind);
  return (
    <header className="border-b border-line/70 print:hidden">
      <div className="mx-auto flex max-w-6xl flex-wrap items-center gap-x-6 gap-y-2 px-5 py-4">
        <Link href="/" className="flex items-center gap-2.5 font-display text-xl font-bold">
          <KeyGlyph cut={{ notches: [...SITE_KEY.notches], tint: SITE_KEY.tint }} size={20} />
          {name}
        </Link>
        {menu.length > 0 && (
          <nav aria-label={t('site.nav')} className="order-last w-full sm:order-none sm:w-auto">
            <ul className="flex flex-wrap gap-x-5 gap-y-1.5">
              {menu.map((entry) => (
                <Entry key={entry.id} entry={entry} t={t} signOut={signOut} />
              ))}
            </ul>
          </nav>
        )}
        <div className="ml-auto flex items-center gap-4">
          {!has('search') && (
            <Link href="/search" prefetch={false} aria-label={t('site.search')} title={t('site.search')}>
              <Search className="size-5" aria-hidden />
            </Link>
          )}
          {isStaff && (
            <Link href="/desk" className="hover:underline">
              {t('site.desk')}
            </Link>
          )}
          {isSignedIn && !has('account') && (
            <Link href="/account" className="font-semibold hover:underline">
              {t('site.account')}
            </Link>
          )}
          {!isSignedIn && !has('sign-in') && (
            <Link href="/sign-in" className="hover:underline">
              {t('site.sign-in')}
            </Link>
          )}
          {!isSignedIn && !has('join') && !has('offer') && (
            <LinkButton href="/join">{t('site.join')}</LinkButton>
          )}
        </div>
      </div>
    </header>
  );
}

function Entry({ entry, t, signOut }: { entry: HeaderEntry; t: Words; signOut: () => Promise<void> }) {
  if (entry.kind === 'sign-in' && entry.path === null)
    return (
      <li>
        <form action={signOut}>
          <button className="hover:underline">{entry.title}</button>
        </form>
      </li>
    );
  if (entry.below.length === 0)
    return (
      <li>
        <EntryLink entry={entry} t={t} />
      </li>
    );
  return (
    <li>
      {/* Of all that have one name, a browser holds one open. */}
      <details name="menu" className="group relative">
        <summary className="flex list-none items-center gap-1 hover:underline">
          {entry.title}
          <ChevronDown className="size-4 text-muted group-open:rotate-180" aria-hidden />
        </summary>
        <ul className="absolute left-0 z-30 mt-2 grid min-w-52 gap-1 rounded-lg border border-line bg-surface p-2 shadow-lg">
          {[...(entry.path === null ? [] : [{ ...entry, below: [] }]), ...entry.below].map((one) => (
            <li key={one.id}>
              <EntryLink entry={one} t={t} className="block rounded px-2.5 py-1.5 hover:bg-sunken" />
            </li>
          ))}
        </ul>
      </details>
    </li>
  );
}

function EntryLink({
  entry,
  t,
  className = 'inline-flex items-center gap-1 hover:underline',
}: {
  entry: HeaderEntry;
  t: Words;
  className?: string;
}) {
  const words = (
    <>
      {entry.title}
      {!entry.isOpen && <Lock className="ml-1 inline size-3.5 text-muted" aria-label={t('site.closed')} />}
    </>
  );
  if (entry.path === null) return <span className={className}>{words}</span>;
  if (entry.kind === 'outside' && !entry.path.startsWith('/'))
    return (
      <a href={entry.path} rel="noopener noreferrer" className={className}>
        {words}
      </a>
    );
  return (
    <Link href={entry.path} prefetch={false} className={className}>
      {words}
    </Link>
  );
}
