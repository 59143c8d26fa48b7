import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { offerPrice } from '@/words/offers';
import { tierOverview } from '@/desk/services/tier-overview';
import type { Words } from '@/words/words';
import type { TierOverview } from '@/desk/services/tier-overview';
import { LadderForm } from '@/tiers/ui/ladder-form';
import { TierLadder, type TierLine } from '@/tiers/ui/tier-ladder';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { buttonClass, LinkButton } from '@/kit/button';
import { Empty } from '@/kit/empty';
import { arrangeTiersAction, saveLadderAction } from './actions';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk.tiers') };

export default async function TiersPage() {
  const t = await deskWords();
  const staff = await requireStaff();
  const { ladders, alone } = await shown(tierOverview(await currentActor()));
  const maySetTiers = staff.may('set tiers');
  const isEmpty = ladders.length + alone.length === 0;
  const retired = [...ladders.flatMap(({ tiers }) => tiers), ...alone].filter((tier) => tier.retiredAt);
  const running = (tiers: TierOverview[]): TierOverview[] => tiers.filter((tier) => !tier.retiredAt);
  return (
    <>
      <TiersHead here="tiers">
        {maySetTiers && !isEmpty && (
          <Link data-new href="/desk/tiers/new" className={buttonClass('main', 'ml-auto')}>
            {desk('desk-tiers.new-tier')}
          </Link>
        )}
      </TiersHead>
      {isEmpty ? (
        <div className="mt-6">
          <Empty
            title={desk('desk-tiers.no-tiers-yet')}
            action={
              maySetTiers && <LinkButton href="/desk/tiers/new">{desk('desk-tiers.new-tier')}</LinkButton>
            }
          >
            {desk('desk-tiers.a-tier-is-what-members')}
          </Empty>
        </div>
      ) : (
        <div className="mt-5 grid items-start gap-x-12 gap-y-10 lg:grid-cols-2">
          {ladders
            .filter(({ tiers }) => running(tiers).length > 0)
            .map(({ ladder, tiers }) => (
              <section key={ladder.id}>
                <h2 className="text-xl">{desk('desk-tiers.ladder', { name: ladder.name })}</h2>
                <LadderForm action={saveLadderAction} ladder={ladder} />
                <TierLadder
                  ladderId={ladder.id}
                  label={desk('desk-tiers.rungs-of-highest-first', { name: ladder.name })}
                  tiers={tiers.map((tier) => lineOf(tier, t))}
                  arrange={arrangeTiersAction}
                />
              </section>
            ))}
          {running(alone).length > 0 && (
            <section>
              <h2 className="text-xl">{desk('desk-tiers.separate-tiers')}</h2>
              <p className="mt-1 text-muted">{desk('desk-tiers.members-can-have-these-beside')}</p>
              <TierLadder
                ladderId={null}
                label={desk('desk-tiers.tiers-on-no-ladder')}
                tiers={alone.map((tier) => lineOf(tier, t))}
                arrange={arrangeTiersAction}
              />
            </section>
          )}
        </div>
      )}
      {retired.length > 0 && (
        <p className="mt-8 text-muted">{desk('desk-tiers.retired-tiers-stay-with-the')}</p>
      )}
    </>
  );
}

function lineOf(tier: TierOverview, t: Words): TierLine {
  const { state, placesLeft } = tier.state;
  const sale = {
    open: '',
    'by-code': desk('desk-tiers.by-code'),
    closed: tier.retiredAt ? desk('desk-tiers.retired-inline') : desk('desk-tiers.joining-closed'),
    'not-yet': desk('desk-tiers.on-sale-from', { onSaleFrom: tier.onSaleFrom ?? '' }),
    over: desk('desk-tiers.sale-ended'),
    'sold-out': desk('desk-tiers.sold-out'),
  }[state];
  return {
    id: tier.id,
    name: tier.name,
    keyCut: tier.keyCut,
    prices: tier.offers.filter((offer) => offer.onSale).map((offer) => offerPrice(offer.definition, t)),
    members: desk('desk.count-members', { count: tier.holders }),
    income: tier.income
      .map(({ amount, currency }) => desk('desk-tiers.a-month', { amount: t.money(amount, currency) }))
      .join(` ${desk('desk.and')} `),
    notes: [
      sale,
      state === 'sold-out' || placesLeft === null
        ? ''
        : t('join.places', { left: placesLeft, places: tier.places ?? placesLeft }),
      tier.onJoinPage || tier.retiredAt ? '' : desk('desk-tiers.not-on-the-join-page'),
    ].filter(Boolean),
    isQuiet: tier.retiredAt !== null,
  };
}
