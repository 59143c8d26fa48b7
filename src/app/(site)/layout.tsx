import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { currentActor, currentSite, shown } from '@/app/session';
import { siteMenu } from '@/access/services/site-menu';
import { whoIsLooking } from '@/access/services/who-is-looking';
import { LookBar } from '@/access/ui/look-bar';
import { SiteHeader } from '@/kit/site-header';

export async function generateMetadata(): Promise<Metadata> {
  const site = await currentSite();
  return {
    title: { default: site.name, template: `%s · ${site.name}` },
    alternates: { types: { 'application/rss+xml': '/feed.xml' } },
  };
}

export default async function SiteLayout({ children }: { children: ReactNode }) {
  const actor = await currentActor();
  const [site, viewer] = [await currentSite(), await shown(whoIsLooking(actor))];
  return (
    <div className="flex min-h-dvh flex-col">
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:m-2 focus:bg-surface focus:p-2"
      >
        To the text
      </a>
      <SiteHeader
        name={site.name}
        menu={await shown(siteMenu(actor))}
        isSignedIn={viewer.signedIn}
        isStaff={actor.staffRole !== null}
      />
      <main id="main" className="flex flex-1 flex-col">
        {children}
      </main>
      {site.mode === 'test' && (
        <footer className="print:hidden">
          <div className="hem h-1.5" aria-hidden />
          <p className="bg-night px-4 py-2 text-center text-sm text-on-night-soft">
            No real money: this site is in test mode.
          </p>
        </footer>
      )}
      {viewer.lookingAs && <LookBar who={viewer.lookingAs} />}
    </div>
  );
}
