import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { config } from '@/platform/config';
import { offerPrice } from '@/words/offers';
import { tierOverview } from '@/desk/services/tier-overview';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { TierName } from '@/kit/key-cut';
import { CopyText } from '@/kit/copy-text';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-tiers.join-links-tiers') };

/** Every address that leads straight to checkout, in one list. */
export default async function JoinLinksPage() {
  const t = await deskWords();
  await requireStaff();
  const { ladders, alone } = await shown(tierOverview(await currentActor()));
  const tiers = [...ladders.flatMap(({ tiers: rungs }) => rungs), ...alone];
  const rows = tiers.flatMap((tier) => tier.offers.map((offer) => ({ tier, offer })));
  return (
    <>
      <TiersHead here="links" />
      <p className="mt-3 max-w-prose text-muted">{desk('desk-tiers.a-join-link-leads-straight')}</p>
      {rows.length === 0 ? (
        <div className="mt-6">
          <Empty title={desk('desk-tiers.no-offers-yet')}>{desk('desk-tiers.add-a-tier-and-an')}</Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk.tier'),
            desk('desk.offer'),
            desk('desk-tiers.price'),
            desk('desk-tiers.join-link'),
          ]}
        >
          {rows.map(({ tier, offer }) => (
            <tr key={offer.id} className="border-t border-line align-top">
              <td className="py-2.5 pr-5">
                <TierName cut={tier.keyCut} name={tier.name} />
              </td>
              <td className="py-2.5 pr-5">
                <Link href={`/desk/tiers/${tier.id}/offers/${offer.id}`} className="hover:underline">
                  {offer.name}
                </Link>
                {!offer.onSale && <span className="ml-2 text-ended">{desk('desk-tiers.not-on-sale')}</span>}
              </td>
              <td className="py-2.5 pr-5">{offerPrice(offer.definition, t)}</td>
              <td className="py-2 pr-5">
                <CopyText
                  text={`${config().SITE_URL}/join/${offer.id}`}
                  label={t('form.copy', {
                    name: desk('desk-tiers.the-join-link-of-inline', {
                      name: tier.name,
                      offer: offer.name,
                    }),
                  })}
                  copied={t('form.copied')}
                />
              </td>
            </tr>
          ))}
          <tr className="border-t border-line align-top">
            <td className="py-2.5 pr-5" colSpan={3}>
              {desk('desk-tiers.all-tiers-the-join-page')}
            </td>
            <td className="py-2 pr-5">
              <CopyText
                text={`${config().SITE_URL}/join`}
                label={t('form.copy', { name: desk('desk-tiers.the-address-of-the-join-page') })}
                copied={t('form.copied')}
              />
            </td>
          </tr>
        </Table>
      )}
    </>
  );
}
