import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { unfinishedCheckouts } from '@/checkout/services/unfinished-checkouts';
import { TiersHead } from '@/tiers/ui/tiers-head';
import { TierName } from '@/kit/key-cut';
import { CutOff } from '@/kit/cut-off';
import { Empty } from '@/kit/empty';
import { Table } from '@/kit/table';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-tiers.unfinished-checkouts-tiers') };

/** Checkouts that people started and didn’t finish, with their last problem. */
export default async function UnfinishedPage() {
  const t = await deskWords();
  await requireStaff('see members');
  const { checkouts, total, expireDays } = await shown(unfinishedCheckouts(await currentActor()));
  return (
    <>
      <TiersHead here="unfinished" />
      <p className="mt-3 max-w-prose text-muted">
        {desk('desk-tiers.people-who-started-a-checkout', { expireDays })}
      </p>
      {checkouts.length === 0 ? (
        <div className="mt-6">
          <Empty title={desk('desk-tiers.no-unfinished-checkouts')}>
            {desk('desk-tiers.checkouts-that-people-start-and')}
          </Empty>
        </div>
      ) : (
        <Table
          heads={[
            desk('desk-tiers.person'),
            desk('desk.tier'),
            desk('desk-tiers.started'),
            desk('desk-tiers.last-problem'),
            desk('desk-tiers.reminded'),
            desk('desk-tiers.expires'),
          ]}
        >
          {checkouts.map((checkout) => (
            <tr key={`${checkout.email} ${checkout.at}`} className="border-t border-line align-top">
              <td className="py-2.5 pr-5">
                {checkout.name || desk('desk-tiers.no-name')}
                <span className="block text-muted">{checkout.email}</span>
              </td>
              <td className="py-2.5 pr-5">
                {checkout.tier && <TierName cut={checkout.tier.keyCut} name={checkout.tier.name} />}
                <span className="block text-muted">{checkout.offerName}</span>
              </td>
              <td className="py-2.5 pr-5 whitespace-nowrap">{t.dateTime(checkout.at)}</td>
              <td className="max-w-80 py-2.5 pr-5">
                {checkout.lastProblem ? t.problem(checkout.lastProblem) : desk('desk-tiers.left-the-page')}
              </td>
              <td className="py-2.5 pr-5 whitespace-nowrap">
                {checkout.remindedAt ? t.date(checkout.remindedAt) : desk('desk-tiers.not-yet')}
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
