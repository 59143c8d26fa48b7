import { SiteLink, SiteLinkButton } from '@/kit/site-link';
import 'server-only';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import type { ShownEntry } from '@/access/services/site-menu';
import type { Panel } from '@/core/content/page-roles';
import { buyPanels, joinPanels, panelsIn, type Prose } from '@/core/content/prose';
import { listItems } from '@/access/services/list-items';
import { categoryNames } from '@/app/item-pages';
import { MembersRoom } from '@/app/members-room';
import { currentActor, currentMember, shown, siteWords } from '@/app/session';
import { signInAction, signOutAction } from '@/app/sign-in-action';
import { ItemList } from '@/content/ui/item-list';
import { shareNot } from '@/platform/request';
import { Button } from '@/kit/button';
import { inputClass } from '@/kit/input-class';
import { SignInForm } from '@/people/ui/sign-in-form';
import { tiersOnOffer } from '@/checkout/services/join-page';
import { productOnSale } from '@/checkout/services/product-page';
import { buyCardOf } from '@/app/buy-card';
import { BuyCard } from '@/checkout/ui/buy-card';
import { productKey } from '@/content/ui/rich-text';
import { JoinPanel } from '@/checkout/ui/join-panel';
import { tierOffers } from './tier-cards';

/** What is shown for the panels of the product in a document, by their names; nothing is looked up where it has none. */
export async function productPanelsOf(document: Prose, here: string): Promise<(panel: string) => ReactNode> {
  const made = new Map<string, ReactNode>();
  for (const panel of panelsIn(document))
    made.set(panel, <div className="panel">{await productPanel(panel, here)}</div>);
  return (panel) => made.get(panel) ?? null;
}

/** What opens in the header for the entries of a menu that are shown as panels; nothing is looked up where there are none. */
export async function headerPanels(menu: ShownEntry[]): Promise<Partial<Record<string, ReactNode>>> {
  const wanted = menu.filter(({ look }) => look === 'panel').map(({ kind }) => kind);
  const here = (await headers()).get('x-path') ?? '/';
  const panels: Partial<Record<string, ReactNode>> = {};
  if (wanted.includes('join')) panels.join = await joinPanel([], here);
  for (const kind of ['sign-in', 'account'] as const)
    if (wanted.includes(kind)) panels[kind] = await productPanel(kind, here);
  return panels;
}

async function joinPanel(ids: string[], here: string): Promise<ReactNode> {
  const t = await siteWords();
  const offered = await shown(tiersOnOffer(await currentActor(), ids));
  const open = offered.filter(({ joining }) => joining.state === 'open' || joining.state === 'by-code');
  return (
    <JoinPanel t={t} tiers={open.map(({ tier, offers }) => tierOffers(t, tier, offers))} returnTo={here} />
  );
}

/** What is bought once; nothing where it is not for sale. */
async function buyPanel(id: string): Promise<ReactNode> {
  const [t, product] = [await siteWords(), await shown(productOnSale(await currentActor(), id))];
  return product && <BuyCard {...buyCardOf(t, product)} />;
}

async function productPanel(panel: Panel, here: string): Promise<ReactNode> {
  const [t, actor] = [await siteWords(), await currentActor()];
  switch (panel) {
    case 'room':
      shareNot();
      return <MembersRoom />;
    case 'sign-in':
      return actor.memberId === null ? (
        <section className="rounded-card border border-line bg-surface p-5">
          <h2 className="text-xl">{t('signin.title')}</h2>
          <SignInForm t={t} action={signInAction} to={here === '/sign-in' ? '/account' : here} />
        </section>
      ) : (
        <AccountPanel />
      );
    case 'account':
      return <AccountPanel />;
    case 'search':
      return (
        <form role="search" action="/search" className="flex gap-3">
          <input
            name="q"
            type="search"
            maxLength={200}
            aria-label={t('site.search-label')}
            className={inputClass}
          />
          <Button type="submit">{t('site.search')}</Button>
        </form>
      );
    case 'latest': {
      const { items } = await shown(listItems(actor, { size: 6 }));
      return <ItemList items={items} t={t} names={await categoryNames()} />;
    }
  }
}

/** Who is signed in, the way to their account, and the way out; how to join, for others. */
async function AccountPanel() {
  const [t, member] = [await siteWords(), await currentMember()];
  if (!member)
    return (
      <p>
        <SiteLink href="/sign-in">{t('site.sign-in')}</SiteLink> ·{' '}
        <SiteLink href="/join">{t('site.join')}</SiteLink>
      </p>
    );
  return (
    <section className="flex flex-wrap items-center gap-4 rounded-card border border-line bg-surface p-5 text-base">
      <p className="mr-auto font-semibold">{member.name}</p>
      <SiteLinkButton href="/account" look="quiet" className="no-underline">
        {t('site.account')}
      </SiteLinkButton>
      <form action={signOutAction}>
        <Button type="submit" look="quiet">
          {t('site.sign-out')}
        </Button>
      </form>
    </section>
  );
}

/** What is shown for the join panels of a document; nothing is looked up where it has none. */
export async function panelsOf(document: Prose, here: string): Promise<(tiers: string[]) => ReactNode> {
  const made = new Map<string, ReactNode>();
  for (const ids of joinPanels(document)) made.set(ids.join(), await joinPanel(ids, here));
  for (const id of buyPanels(document)) made.set(productKey(id), await buyPanel(id));
  return (tiers) => made.get(tiers.join()) ?? null;
}
