import type { Metadata } from 'next';
import { currentActor, requireStaff, shown } from '@/app/session';
import { formatDate, formatDateTime } from '@/core/calendar';
import { unfinishedJoinings } from '@/services/unfinished-joinings';
import { TiersHead } from '@/ui/desk/tiers-head';
import { TierName } from '@/ui/key-cut';
import { Empty } from '@/ui/kit/empty';
import { Table } from '@/ui/kit/table';

export const metadata: Metadata = { title: 'Unfinished joinings' };

/** What people began and did not finish, and what stood in the way. */
export default async function UnfinishedPage() {
  await requireStaff();
  const { joinings, zone, expireDays } = await shown(unfinishedJoinings(await currentActor()));
  return (
    <>
      <TiersHead here="unfinished" />
      <p className="mt-3 max-w-prose text-muted">
        Somebody pressed the button and did not get to the end. After an hour they get one mail with a link
        that brings them back; after {expireDays} days the joining expires. Nothing is charged meanwhile.
      </p>
      {joinings.length === 0 ? (
        <div className="mt-6">
          <Empty title="Nothing is unfinished">Everybody who began to join has finished, or let it be.</Empty>
        </div>
      ) : (
        <Table heads={['Who', 'Tier', 'Began', 'What stood in the way', 'Reminded', 'Expires']}>
          {joinings.map((joining) => (
            <tr key={`${joining.email} ${joining.at}`} className="border-t border-line align-top">
              <td className="py-2.5 pr-5">
                {joining.name || 'No name'}
                <span className="block text-muted">{joining.email}</span>
              </td>
              <td className="py-2.5 pr-5">
                {joining.tier && <TierName cut={joining.tier.keyCut} name={joining.tier.name} />}
                <span className="block text-muted">{joining.offerName}</span>
              </td>
              <td className="py-2.5 pr-5 whitespace-nowrap">{formatDateTime(joining.at, zone)}</td>
              <td className="max-w-80 py-2.5 pr-5">{joining.lastProblem || 'The page was left'}</td>
              <td className="py-2.5 pr-5 whitespace-nowrap">
                {joining.remindedAt ? formatDate(joining.remindedAt, zone) : 'not yet'}
              </td>
              <td className="py-2.5 whitespace-nowrap">{formatDate(joining.expiresAt, zone)}</td>
            </tr>
          ))}
        </Table>
      )}
    </>
  );
}
