import type { Metadata } from 'next';
import Link from 'next/link';
import { randomUUID } from 'node:crypto';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { switchWays } from '@/checkout/services/switch-ways';
import { StaffSwitch } from '@/billing/ui/staff-switch';
import { switchForMemberAction } from '../../../actions';
import type { SubscriptionId } from '@/core/ids';

export const metadata: Metadata = { title: 'Switch a member' };

type Params = { id: string; subscriptionId: SubscriptionId };

export default async function StaffSwitchPage({ params }: { params: Promise<Params> }) {
  const t = await deskWords();
  await requireStaff('manage members');
  const { id, subscriptionId } = await params;
  const { member, from, ways } = await shown(
    switchWays(await currentActor(), { memberId: id, subscriptionId }),
  );
  const money = (amount: number, currency: string): string => t.money(amount, currency);
  return (
    <>
      <p>
        <Link href={`/desk/members/${member.id}`} className="text-spruce underline">
          {member.name || member.email}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl" id="desk-main">
        Switch from {from}
      </h1>
      {ways.length === 0 && (
        <p className="mt-4 text-lg text-muted">There is nothing on its ladder to switch to now.</p>
      )}
      <ul className="mt-5 grid max-w-4xl gap-4">
        {ways.map(({ offer, tierName, quoteId, figures, why }) => (
          <li key={offer.id} className="rounded-card border border-line bg-surface p-5">
            <h2 className="text-xl">
              {tierName}, {offer.name.toLowerCase()}
            </h2>
            {figures ? (
              <>
                <p className="figures mt-1">
                  {figures.fresh + figures.leftOver > 0 &&
                    `${figures.unusedDays} of ${figures.totalDays} days unused: ${money(figures.fresh + figures.leftOver, offer.definition.currency)} of credit. `}
                  {figures.credit > 0 &&
                    figures.atOnce &&
                    `${money(figures.credit, offer.definition.currency)} of other credit is spent. `}
                  {figures.atOnce
                    ? `Now, for ${money(figures.due, offer.definition.currency)}.`
                    : `On ${t.date(figures.startsAt)}, at the end of what is paid${figures.amount > 0 ? `, for ${money(figures.amount, offer.definition.currency)}` : ''}; nothing is due today.${figures.credit > 0 ? ` Credit then pays ${money(figures.credit, offer.definition.currency)}.` : ''}`}
                  {figures.leftOver > 0 &&
                    ` ${money(figures.leftOver, offer.definition.currency)} of credit is left for later charges.`}
                </p>
                <StaffSwitch
                  quoteId={quoteId ?? ''}
                  requestId={randomUUID()}
                  button={
                    figures.atOnce
                      ? `Switch now${figures.due > 0 ? ` and charge ${money(figures.due, offer.definition.currency)}` : ''}`
                      : 'Switch then'
                  }
                  action={switchForMemberAction}
                />
              </>
            ) : (
              <p className="mt-1 text-muted">{why}</p>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
