import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { randomUUID } from 'node:crypto';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { switchWays } from '@/checkout/services/switch-ways';
import { StaffSwitch } from '@/billing/ui/staff-switch';
import { switchForMemberAction } from '../../../actions';
import type { SwitchFigures } from '@/core/billing/figures';
import type { SubscriptionId } from '@/core/ids';
import type { Words } from '@/words/speak';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-members.switch-a-member') };

type Params = { id: string; subscriptionId: SubscriptionId };

export default async function StaffSwitchPage({ params }: { params: Promise<Params> }) {
  const t = await deskWords();
  await requireStaff('manage members');
  const { id, subscriptionId } = await params;
  const { member, from, ways } = await shown(
    switchWays(await currentActor(), { memberId: id, subscriptionId }),
  );
  return (
    <>
      <p>
        <Link href={`/desk/members/${member.id}`} className="text-spruce underline">
          {member.name || member.email}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl" id="desk-main">
        {desk('desk-members.switch-from', { from })}
      </h1>
      {ways.length === 0 && (
        <p className="mt-4 text-lg text-muted">{desk('desk-members.there-is-nothing-on-its')}</p>
      )}
      <ul className="mt-5 grid max-w-4xl gap-4">
        {ways.map(({ offer, tierName, quoteId, figures, why }) => (
          <li key={offer.id} className="rounded-card border border-line bg-surface p-5">
            <h2 className="text-xl">
              {tierName}, {offer.name.toLowerCase()}
            </h2>
            {figures ? (
              <>
                <p className="figures mt-1">{switchWords(figures, offer.definition.currency, t)}</p>
                <StaffSwitch
                  quoteId={quoteId ?? ''}
                  requestId={randomUUID()}
                  button={
                    !figures.atOnce
                      ? desk('desk-members.switch-then')
                      : figures.due > 0
                        ? desk('desk-members.switch-now-and-charge', {
                            amount: t.money(figures.due, offer.definition.currency),
                          })
                        : desk('desk-members.switch-now')
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

function switchWords(figures: SwitchFigures, currency: string, t: Words): string {
  const { atOnce, fresh, leftOver, credit, due, amount, unusedDays, totalDays, startsAt } = figures;
  const said = (money: number): string => t.money(money, currency);
  const date = t.date(startsAt);
  const when = (): string => {
    if (atOnce) return desk('desk-members.switches-now', { amount: said(due) });
    if (amount === 0) return desk('desk-members.switches-later-free', { date });
    return desk('desk-members.switches-later', { date, amount: said(amount) });
  };
  return [
    fresh + leftOver > 0 &&
      desk('desk-members.unused-days', {
        unused: unusedDays,
        total: totalDays,
        amount: said(fresh + leftOver),
      }),
    atOnce && credit > 0 && desk('desk-members.other-credit', { amount: said(credit) }),
    when(),
    !atOnce && credit > 0 && desk('desk-members.credit-pays-then', { amount: said(credit) }),
    leftOver > 0 && desk('desk-members.credit-left', { amount: said(leftOver) }),
  ]
    .filter(Boolean)
    .join(' ');
}
