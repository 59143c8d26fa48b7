import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { config } from '@/platform/config';
import { offerPrice } from '@/words/offers';
import { tierOverview } from '@/desk/services/tier-overview';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { TierName } from '@/kit/key-cut';
import { CopyText } from '@/kit/copy-text';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';

export const metadata: Metadata = { title: 'Join links · Tiers' };

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
      <p className="mt-3 max-w-prose text-muted">
        A join link leads straight to checkout for one offer. Use it in a notice, an email or on another site.
        Offers can also have an entry in your menu, and a button in a page or post.
      </p>
      {rows.length === 0 ? (
        <div className="mt-6">
          <Empty title="No offers yet">Add a tier and an offer, and its link appears here.</Empty>
        </div>
      ) : (
        <Table heads={['Tier', 'Offer', 'Price', 'Join link', 'Menu entry']}>
          {rows.map(({ tier, offer }) => (
            <tr key={offer.id} className="border-t border-line align-top">
              <td className="py-2.5 pr-5">
                <TierName cut={tier.keyCut} name={tier.name} />
              </td>
              <td className="py-2.5 pr-5">
                <Link href={`/desk/tiers/${tier.id}/offers/${offer.id}`} className="hover:underline">
                  {offer.name}
                </Link>
                {!offer.onSale && <span className="ml-2 text-ended">not on sale</span>}
              </td>
              <td className="py-2.5 pr-5">{offerPrice(offer.definition, t)}</td>
              <td className="py-2 pr-5">
                <CopyText
                  text={`${config().SITE_URL}/join/${offer.id}`}
                  label={t('form.copy', { name: `the join link of ${tier.name}, ${offer.name}` })}
                  copied={t('form.copied')}
                />
              </td>
              <td className="py-2.5">
                {offer.menuLabel ? `“${offer.menuLabel}”` : <span className="text-muted">none</span>}
              </td>
            </tr>
          ))}
          <tr className="border-t border-line align-top">
            <td className="py-2.5 pr-5" colSpan={3}>
              All tiers: the join page
            </td>
            <td className="py-2 pr-5">
              <CopyText
                text={`${config().SITE_URL}/join`}
                label={t('form.copy', { name: 'the address of the join page' })}
                copied={t('form.copied')}
              />
            </td>
            <td className="py-2.5 text-muted">always there</td>
          </tr>
        </Table>
      )}
    </>
  );
}
