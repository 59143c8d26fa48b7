import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import { ChevronDown, KeyRound, Lock, LogIn, Menu, Search, UserRound } from '@lucide/icons';
import { SiteIcon } from '@/kit/site-icon';
import type { ReactNode } from 'react';
import type { Words } from '@/words/speak';
import { KeyGlyph } from './key-cut';

/** An entry of the menu; one without a path only holds those below it. */
export type HeaderEntry = {
  id: string;
  kind: string;
  title: string;
  path: string | null;
  isOpen: boolean;
  look: 'link' | 'button' | 'icon' | 'panel';
  below: HeaderEntry[];
};

type Props = {
  t: Words;
  name: string;
  /** The picture of the site's mark; null: its key. */
  markId: string | null;
  menu: HeaderEntry[];
  isSignedIn: boolean;
  isStaff: boolean;
  /** Where people join: the join page, or the page that serves as it. */
  joinPath: string;
  signOut: () => Promise<void>;
  /** What opens in place for an entry that is shown as a panel, by its kind. */
  panels: Partial<Record<string, ReactNode>>;
};

/** The site's own key, beside its name. */
const SITE_KEY = { notches: [2, 3, 1, 3], tint: 'brass' } as const;

const all = (entries: HeaderEntry[]): HeaderEntry[] =>
  entries.flatMap((entry) => [entry, ...all(entry.below)]);

export function SiteHeader({ t, name, markId, menu, isSignedIn, isStaff, joinPath, signOut, panels }: Props) {
  // What the menu leads to already needs no second way.
  const has = (kind: string): boolean => all(menu).some((entry) => entry.kind === kind);
  const ways = (
    <>
      {isStaff && (
        <SiteLink href="/desk" className="hover:underline">
          {t('site.desk')}
        </SiteLink>
      )}
      {isSignedIn && !has('account') && (
        <SiteLink href="/account" className="font-semibold hover:underline">
          {t('site.account')}
        </SiteLink>
      )}
      {!isSignedIn && !has('sign-in') && (
        <SiteLink href="/sign-in" className="hover:underline">
          {t('site.sign-in')}
        </SiteLink>
      )}
    </>
  );
  const join = !isSignedIn && !has('join') && !has('offer') && (
    <SiteLinkButton href={joinPath}>{t('site.join')}</SiteLinkButton>
  );
  const search = !has('search') && (
    <SiteLink href="/search" aria-label={t('site.search')} title={t('site.search')}>
      <SiteIcon icon={Search} className="size-5" aria-hidden />
    </SiteLink>
  );
  return (
    // On the front page it lies over the picture.
    <header className="border-b border-line/70 group-has-[.front-hero]/site:absolute group-has-[.front-hero]/site:inset-x-0 group-has-[.front-hero]/site:z-20 group-has-[.front-hero]/site:border-transparent group-has-[.front-hero]/site:text-on-night group-has-[.front-hero]/site:[color-scheme:dark] group-has-[.front-hero]/site:[--color-on-spruce:var(--color-night)] group-has-[.front-hero]/site:[--color-spruce-deep:#edc169] group-has-[.front-hero]/site:[--color-spruce:var(--color-lamp)] print:hidden">
      <div className="mx-auto flex max-w-6xl flex-wrap items-center gap-x-3 gap-y-2 px-5 py-4 sm:gap-x-6">
        <SiteLink href="/" className="flex min-w-0 items-center gap-2.5 font-display text-xl font-bold">
          {markId ? (
            // oxlint-disable-next-line nextjs/no-img-element -- resized and served by ourselves
            <img src={`/pictures/${markId}?size=small`} alt="" className="h-8 w-auto" />
          ) : (
            <KeyGlyph cut={{ notches: [...SITE_KEY.notches], tint: SITE_KEY.tint }} size={20} />
          )}
          <span className="truncate">{name}</span>
        </SiteLink>
        {menu.length > 0 && (
          <nav aria-label={t('site.nav')} className="max-sm:hidden">
            <ul className="flex flex-wrap gap-x-5 gap-y-1.5">
              {menu.map((entry) => (
                <Entry key={entry.id} entry={entry} t={t} signOut={signOut} panel={panels[entry.kind]} />
              ))}
            </ul>
          </nav>
        )}
        <div className="ml-auto flex items-center gap-4 max-sm:hidden">
          {search}
          {ways}
          {join}
        </div>
        <div className="ml-auto flex items-center gap-3 sm:hidden">
          {search}
          {join}
          {/* On a phone the menu is behind one button, and needs no script to open. */}
          <details name="menu" className="group">
            <summary
              className="grid size-10 list-none place-items-center rounded-lg border border-current/30"
              aria-label={t('site.menu')}
            >
              <SiteIcon icon={Menu} className="size-5" aria-hidden />
            </summary>
            <nav
              aria-label={t('site.nav')}
              className="absolute inset-x-0 z-30 mt-4 border-y border-line bg-surface px-5 py-3 text-ink shadow-lg"
            >
              <ul className="grid gap-1">
                {flatEntries(menu).map(({ entry, depth }) => (
                  <li key={entry.id} style={{ paddingLeft: `${depth}rem` }} className="py-1.5">
                    {entry.kind === 'sign-in' && entry.path === null ? (
                      <SignOut entry={entry} signOut={signOut} />
                    ) : (
                      <EntryLink entry={entry} t={t} className="block" />
                    )}
                  </li>
                ))}
              </ul>
              <div className="mt-2 flex flex-wrap gap-5 border-t border-line pt-3">{ways}</div>
            </nav>
          </details>
        </div>
      </div>
    </header>
  );
}

const ICONS: Partial<Record<string, typeof Search>> = {
  join: KeyRound,
  offer: KeyRound,
  'sign-in': LogIn,
  account: UserRound,
};

const flatEntries = (entries: HeaderEntry[], depth = 0): { entry: HeaderEntry; depth: number }[] =>
  entries.flatMap((entry) => [{ entry, depth }, ...flatEntries(entry.below, depth + 1)]);

function SignOut({ entry, signOut }: { entry: HeaderEntry; signOut: () => Promise<void> }) {
  return (
    <form action={signOut}>
      <button className="hover:underline">{entry.title}</button>
    </form>
  );
}

type EntryProps = { entry: HeaderEntry; t: Words; signOut: () => Promise<void>; panel: ReactNode };

function Entry({ entry, t, signOut, panel }: EntryProps) {
  if (entry.look === 'panel' && panel)
    return (
      <li>
        <details name="menu" className="group relative">
          <summary className="flex list-none items-center gap-1 hover:underline">
            {entry.title}
            <SiteIcon icon={ChevronDown} className="size-4 text-muted group-open:rotate-180" aria-hidden />
          </summary>
          <div className="absolute left-0 z-30 mt-2 w-[26rem] max-w-[80vw] rounded-lg bg-paper text-ink shadow-lg">
            {panel}
          </div>
        </details>
      </li>
    );
  if (entry.kind === 'sign-in' && entry.path === null)
    return (
      <li>
        <SignOut entry={entry} signOut={signOut} />
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
          <SiteIcon icon={ChevronDown} className="size-4 text-muted group-open:rotate-180" aria-hidden />
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
  const icon = entry.look === 'icon' ? ICONS[entry.kind] : undefined;
  if (entry.look === 'button' && entry.path !== null)
    return <SiteLinkButton href={entry.path}>{entry.title}</SiteLinkButton>;
  if (icon && entry.path !== null)
    return (
      <SiteLink href={entry.path} aria-label={entry.title} title={entry.title} className={className}>
        <SiteIcon icon={icon} className="size-5" aria-hidden />
      </SiteLink>
    );
  const words = (
    <>
      {entry.title}
      {!entry.isOpen && (
        <SiteIcon icon={Lock} className="ml-1 inline size-3.5 opacity-60" aria-label={t('site.closed')} />
      )}
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
    <SiteLink href={entry.path} className={className}>
      {words}
    </SiteLink>
  );
}
