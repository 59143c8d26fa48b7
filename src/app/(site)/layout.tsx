import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { currentActor, currentMember, currentSite, shown, siteWords } from '@/app/session';
import { siteMenu } from '@/access/services/site-menu';
import { whoIsLooking } from '@/access/services/who-is-looking';
import { LookBar } from '@/access/ui/look-bar';
import { FEEDS } from '@/app/public-feed';
import { signOutAction } from '@/app/sign-in-action';
import { FormWordsOf } from '@/app/form-words';
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
  return (
    <div lang={site.language} className="flex min-h-dvh flex-col">
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:m-2 focus:bg-surface focus:p-2"
      >
        {t('site.skip')}
      </a>
      <SiteHeader
        t={t}
        name={site.name}
        menu={await shown(siteMenu(actor))}
        isSignedIn={viewer.signedIn}
        isStaff={actor.staffRole !== null}
        signOut={signOutAction}
      />
      <main id="main" className="flex flex-1 flex-col">
        <FormWordsOf t={t} email={(await currentMember())?.email ?? null}>
          {children}
        </FormWordsOf>
      </main>
      {site.mode === 'test' && (
        <footer className="print:hidden">
          <div className="hem h-1.5" aria-hidden />
          <p className="bg-night px-4 py-2 text-center text-sm text-on-night-soft">{t('site.test-mode')}</p>
        </footer>
      )}
      {viewer.lookingAs && <LookBar t={t} who={viewer.lookingAs} />}
    </div>
  );
}
