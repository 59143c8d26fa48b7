import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { formatDate, formatDateTime, type Instant } from '@/core/instants';
import { formatMoney } from '@/core/money';
import { today } from '@/desk/services/today';
import { SetupTrail } from '@/desk/ui/setup-trail';
import { LifeMark } from '@/kit/state-mark';
import type { MemberId } from '@/core/ids';

export const metadata: Metadata = { title: 'Today' };

export default async function TodayPage() {
  await requireStaff();
  const t = await shown(today(await currentActor()));
  const trail = [
    {
      title: 'Connect a gateway in test mode',
      href: '/desk/money/gateways',
      proof: t.gateway
        ? t.gateway.heardAt
          ? `${t.gateway.label} is connected, and its webhook was heard`
          : `${t.gateway.label} is connected; its webhook has not been heard yet`
        : null,
      isDone: Boolean(t.gateway?.heardAt),
    },
    {
      title: 'Make tiers and say what they cost',
      href: '/desk/tiers',
      proof: t.tiersOnSale > 0 ? `${t.tiersOnSale} of ${t.tiers} tiers can be joined` : null,
      isDone: t.tiersOnSale > 0,
    },
    {
      title: 'Write pages and posts',
      href: '/desk/content',
      proof: t.published > 0 ? `${t.published} are published` : null,
      isDone: t.published > 0,
    },
    {
      title: 'Close some of them',
      href: '/desk/access',
      proof: t.turnedAway > 0 ? `A visitor is turned away at ${t.turnedAway} of them` : null,
      isDone: t.turnedAway > 0,
    },
    {
      title: 'Join with a test card',
      href: '/join',
      proof: t.lastPayment
        ? `A test payment of ${formatMoney(t.lastPayment.amount, t.lastPayment.currency)} arrived on ${formatDateTime(t.lastPayment.at, t.zone)}`
        : null,
      isDone: Boolean(t.lastPayment),
    },
    { title: 'Go live', href: '/desk/settings/live', proof: null, isDone: false },
  ];
  return (
    <>
      <h1 className="text-3xl" id="desk-main">
        Today
      </h1>
      <div className={t.isLive ? 'mt-5' : 'mt-5 grid gap-8 lg:grid-cols-[26rem_1fr]'}>
        {!t.isLive && <SetupTrail steps={trail} />}
        <div className="grid content-start gap-8">
          <dl className="flex flex-wrap gap-x-12 gap-y-4">
            <Figure name="Joined in the last 7 days" value={String(t.joinedThisWeek)} />
            <Figure
              name="Received in the last 7 days"
              value={t.incomeThisWeek.map((i) => formatMoney(i.amount, i.currency)).join(' + ') || 'nothing'}
            />
            <Figure name="Overdue now" value={String(t.overdue.length)} />
          </dl>
          {t.overdue.length > 0 && (
            <section>
              <h2 className="text-xl">Needs you: payments that failed</h2>
              <Rows rows={t.overdue} zone={t.zone} word="next try" />
            </section>
          )}
          <section>
            <h2 className="text-xl">Falls due next</h2>
            {t.dueNext.length === 0 ? (
              <p className="mt-2 text-muted">Nothing: no subscription is running yet.</p>
            ) : (
              <Rows rows={t.dueNext} zone={t.zone} word="due" />
            )}
          </section>
        </div>
      </div>
    </>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-muted">{name}</dt>
      <dd className="figures font-display text-3xl font-bold">{value}</dd>
    </div>
  );
}

function Rows({
  rows,
  zone,
  word,
}: {
  rows: { id: string; memberId: MemberId; memberName: string; state: string; dueAt: Instant | null }[];
  zone: string;
  word: string;
}) {
  return (
    <ul className="mt-2 max-w-3xl divide-y divide-line border-y border-line">
      {rows.map((row) => (
        <li
          key={row.id}
          className="grid grid-cols-[1fr_7rem] sm:grid-cols-[1fr_7rem_13rem] items-center gap-4 py-2.5"
        >
          <Link href={`/desk/members/${row.memberId}`} className="font-semibold hover:underline">
            {row.memberName}
          </Link>
          <span>
            <LifeMark state={row.state} />
          </span>
          <span className="figures text-muted sm:text-right">
            {row.dueAt && `${word} ${formatDate(row.dueAt, zone)}`}
          </span>
        </li>
      ))}
    </ul>
  );
}
