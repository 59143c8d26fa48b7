import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { SiteLink } from '@/kit/site-link';
import type { ReactNode } from 'react';
import { servingPages } from '@/access/services/serving-pages';
import { currentActor, currentSite, shown, siteWords } from '@/app/session';
import { siteMenu } from '@/access/services/site-menu';
import { whoIsLooking } from '@/access/services/who-is-looking';
import { LookBar } from '@/access/ui/look-bar';
import { headerPanels } from '@/app/panels';
import { FEEDS } from '@/app/public-feed';
import { signOutAction } from '@/app/sign-in-action';
import { FormWordsOf } from '@/app/form-words';
import { themeStyle } from '@/core/theme';
import { SiteHeader } from '@/kit/site-header';

export async function generateMetadata(): Promise<Metadata> {
  const site = await currentSite();
  return {
    title: { default: site.name, template: `%s · ${site.name}` },
    alternates: { types: FEEDS },
  };
}

export default async function SiteLayout({ children }: { children: ReactNode }) {
  const actor = await currentActor();
  const t = await siteWords();
  const [site, viewer] = [await currentSite(), await shown(whoIsLooking(actor))];
  const pages = await shown(servingPages(actor));
  const menu = await shown(siteMenu(actor));
  const legal = [pages.privacy, pages.terms].flatMap((page) => page ?? []);
  return (
    <div
      lang={site.language}
      style={themeStyle(site.theme)}
      className="group/site flex min-h-dvh flex-col bg-paper font-sans text-ink"
    >
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:m-2 focus:bg-surface focus:p-2"
      >
        {t('site.skip')}
      </a>
      <SiteHeader
        t={t}
        name={site.name}
        markId={site.markId}
        menu={menu}
        isSignedIn={viewer.signedIn}
        isStaff={actor.staffRole !== null && !viewer.lookingAs}
        joinPath={pages.join?.path ?? '/join'}
        signOut={signOutAction}
        panels={await headerPanels(menu)}
      />
      <main id="main" className="flex flex-1 flex-col">
        <FormWordsOf t={t}>{children}</FormWordsOf>
      </main>
      <footer className="mx-auto flex w-full max-w-6xl flex-wrap gap-x-6 gap-y-1 px-5 py-6 text-[0.9375rem] text-muted print:hidden">
        <span className="mr-auto">{site.name}</span>
        {legal.map(({ path, title }) => (
          <SiteLink key={path} href={path} className="hover:underline">
            {title}
          </SiteLink>
        ))}
      </footer>
      {site.mode === 'test' && (
        <div role="note" className="print:hidden">
          <div className="hem h-1.5" aria-hidden />
          <p className="bg-night px-4 py-2 text-center text-sm text-on-night-soft">{t('site.test-mode')}</p>
        </div>
      )}
      {viewer.lookingAs && (
        <LookBar t={t} as={viewer.lookingAs} path={(await headers()).get('x-path') ?? '/'} />
      )}
    </div>
  );
}
