import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { unfinishedCheckouts } from '@/checkout/services/unfinished-checkouts';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { TierName } from '@/kit/key-cut';
import { CutOff } from '@/kit/cut-off';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';

export const metadata: Metadata = { title: 'Unfinished checkouts' };

/** What people began and did not finish, and what stood in the way. */
export default async function UnfinishedPage() {
  const t = await deskWords();
  await requireStaff();
  const { checkouts, total, expireDays } = await shown(unfinishedCheckouts(await currentActor()));
  return (
    <>
      <TiersHead here="unfinished" />
      <p className="mt-3 max-w-prose text-muted">
        Somebody pressed the button and did not get to the end. After an hour they get one mail with a link
        that brings them back; after {expireDays} days the joining expires. Nothing is charged meanwhile.
      </p>
      {checkouts.length === 0 ? (
        <div className="mt-6">
          <Empty title="Nothing is unfinished">Everybody who began to join has finished, or let it be.</Empty>
        </div>
      ) : (
        <Table heads={['Who', 'Tier', 'Began', 'What stood in the way', 'Reminded', 'Expires']}>
          {checkouts.map((checkout) => (
            <tr key={`${checkout.email} ${checkout.at}`} className="border-t border-line align-top">
              <td className="py-2.5 pr-5">
                {checkout.name || 'No name'}
                <span className="block text-muted">{checkout.email}</span>
              </td>
              <td className="py-2.5 pr-5">
                {checkout.tier && <TierName cut={checkout.tier.keyCut} name={checkout.tier.name} />}
                <span className="block text-muted">{checkout.offerName}</span>
              </td>
              <td className="py-2.5 pr-5 whitespace-nowrap">{t.dateTime(checkout.at)}</td>
              <td className="max-w-80 py-2.5 pr-5">
                {checkout.lastProblem ? t.problem(checkout.lastProblem) : 'The page was left'}
              </td>
              <td className="py-2.5 pr-5 whitespace-nowrap">
                {checkout.remindedAt ? t.date(checkout.remindedAt) : 'not yet'}
              </td>
              <td className="py-2.5 whitespace-nowrap">{t.date(checkout.expiresAt)}</td>
            </tr>
          ))}
        </Table>
      )}
      <CutOff t={t} shown={checkouts.length} total={total} which="newest" />
    </>
  );
}
