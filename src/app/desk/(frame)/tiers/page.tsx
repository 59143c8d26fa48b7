import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { offerPrice } from '@/words/offers';
import { may } from '@/core/staff';
import { tierOverview } from '@/desk/services/tier-overview';
import type { Words } from '@/words/words';
import type { TierOverview } from '@/desk/services/tier-overview';
import { LadderForm } from '@/tiers/ui/ladder-form';
import { TierLadder, type TierLine } from '@/tiers/ui/tier-ladder';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { buttonClass, LinkButton } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { arrangeTiersAction, saveLadderAction } from './actions';

export const metadata: Metadata = { title: 'Tiers' };

export default async function TiersPage() {
  const t = await deskWords();
  const staff = await requireStaff();
  const { ladders, alone } = await shown(tierOverview(await currentActor()));
  const retired = [...ladders.flatMap(({ tiers }) => tiers), ...alone].filter((tier) => tier.retiredAt);
  const running = (tiers: TierOverview[]): TierOverview[] => tiers.filter((tier) => !tier.retiredAt);
  return (
    <>
      <TiersHead here="tiers">
        {may(staff.staffRole, 'set tiers') && (
          <Link data-new href="/desk/tiers/new" className={buttonClass('main', 'ml-auto')}>
            Make a tier
          </Link>
        )}
      </TiersHead>
      {ladders.length + alone.length === 0 ? (
        <div className="mt-6">
          <Empty title="No tiers yet" action={<LinkButton href="/desk/tiers/new">Add a tier</LinkButton>}>
            A tier is what members join: free or paid. Add one, then set its price.
          </Empty>
        </div>
      ) : (
        <div className="mt-5 grid items-start gap-x-12 gap-y-10 lg:grid-cols-2">
          {ladders
            .filter(({ tiers }) => running(tiers).length > 0)
            .map(({ ladder, tiers }) => (
              <section key={ladder.id}>
                <h2 className="text-xl">Ladder: {ladder.name}</h2>
                <LadderForm action={saveLadderAction} ladder={ladder} />
                <TierLadder
                  ladderId={ladder.id}
                  label={`Rungs of ${ladder.name}, highest first`}
                  tiers={tiers.map((tier) => lineOf(tier, t))}
                  arrange={arrangeTiersAction}
                />
              </section>
            ))}
          {running(alone).length > 0 && (
            <section>
              <h2 className="text-xl">Separate tiers</h2>
              <p className="mt-1 text-muted">
                Members can have these beside any other tier. In the order of the join page.
              </p>
              <TierLadder
                ladderId={null}
                label="Tiers on no ladder"
                tiers={alone.map((tier) => lineOf(tier, t))}
                arrange={arrangeTiersAction}
              />
            </section>
          )}
        </div>
      )}
      {retired.length > 0 && (
        <p className="mt-8 text-muted">
          Retired tiers stay with the members who have them; nobody new can join.
        </p>
      )}
    </>
  );
}

function lineOf(tier: TierOverview, t: Words): TierLine {
  const { state, placesLeft } = tier.state;
  const sale = {
    open: '',
    'by-code': 'by code',
    closed: tier.retiredAt ? 'retired' : 'joining closed',
    'not-yet': `on sale from ${tier.onSaleFrom ?? ''}`,
    over: 'sale ended',
    'sold-out': 'sold out',
  }[state];
  return {
    id: tier.id,
    name: tier.name,
    keyCut: tier.keyCut,
    prices: tier.offers.filter((offer) => offer.onSale).map((offer) => offerPrice(offer.definition, t)),
    members: tier.holders === 1 ? '1 member' : `${tier.holders} members`,
    income: tier.income.map(({ amount, currency }) => `${t.money(amount, currency)} a month`).join(' and '),
    notes: [
      sale,
      state === 'sold-out' || placesLeft === null
        ? ''
        : t('join.places', { left: placesLeft, places: tier.places ?? placesLeft }),
      tier.onJoinPage || tier.retiredAt ? '' : 'not on the join page',
    ].filter(Boolean),
    isQuiet: tier.retiredAt !== null,
  };
}
