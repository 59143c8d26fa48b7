import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { unfinishedCheckouts } from '@/checkout/services/unfinished-checkouts';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { TierName } from '@/kit/key-cut';
import { CutOff } from '@/kit/cut-off';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';

export const metadata: Metadata = { title: 'Unfinished checkouts · Tiers' };

/** Checkouts that people started and didn’t finish, with their last problem. */
export default async function UnfinishedPage() {
  const t = await deskWords();
  await requireStaff();
  const { checkouts, total, expireDays } = await shown(unfinishedCheckouts(await currentActor()));
  return (
    <>
      <TiersHead here="unfinished" />
      <p className="mt-3 max-w-prose text-muted">
        People who started a checkout and didn’t finish. After an hour they get one email with a link back;
        after
        {expireDays} days the checkout expires. Nothing is charged.
      </p>
      {checkouts.length === 0 ? (
        <div className="mt-6">
          <Empty title="No unfinished checkouts">
            Checkouts that people start and don’t finish appear here.
          </Empty>
        </div>
      ) : (
        <Table heads={['Person', 'Tier', 'Started', 'Last problem', 'Reminded', 'Expires']}>
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
                {checkout.lastProblem ? t.problem(checkout.lastProblem) : 'Left the page'}
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
