import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import type { Instant } from '@/core/instants';
import { today } from '@/desk/services/today';
import { SetupTrail } from '@/desk/ui/setup-trail';
import { LifeMark } from '@/kit/state-mark';
import type { MemberId } from '@/core/ids';
import type { Words } from '@/words/words';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-frame.today') };

export default async function TodayPage() {
  await requireStaff();
  const [t, facts] = [await deskWords(), await shown(today(await currentActor()))];
  const trail = [
    {
      title: desk('desk-frame.connect-a-gateway-in-test-mode'),
      href: '/desk/money/gateways',
      proof: facts.gateway
        ? facts.gateway.heardAt
          ? desk('desk-frame.is-connected-and-its-webhook', { label: facts.gateway.label })
          : desk('desk-frame.is-connected-its-webhook-has', { label: facts.gateway.label })
        : null,
      isDone: Boolean(facts.gateway?.heardAt),
    },
    {
      title: desk('desk-frame.make-tiers-and-say-what'),
      href: '/desk/tiers',
      proof:
        facts.tiersOnSale > 0
          ? desk('desk-frame.of-tiers-can-be-joined', { tiersOnSale: facts.tiersOnSale, tiers: facts.tiers })
          : null,
      isDone: facts.tiersOnSale > 0,
    },
    {
      title: desk('desk-frame.write-pages-and-posts'),
      href: '/desk/content',
      proof: facts.published > 0 ? desk('desk-frame.are-published', { published: facts.published }) : null,
      isDone: facts.published > 0,
    },
    {
      title: desk('desk-frame.close-some-of-them'),
      href: '/desk/access',
      proof:
        facts.turnedAway > 0
          ? desk('desk-frame.a-visitor-is-turned-away', { turnedAway: facts.turnedAway })
          : null,
      isDone: facts.turnedAway > 0,
    },
    {
      title: desk('desk-frame.join-with-a-test-card'),
      href: '/join',
      proof: facts.lastPayment
        ? desk('desk-frame.a-test-payment-of-arrived', {
            amount: t.money(facts.lastPayment.amount, facts.lastPayment.currency),
            date: t.dateTime(facts.lastPayment.at),
          })
        : null,
      isDone: Boolean(facts.lastPayment),
    },
    { title: desk('desk.go-live'), href: '/desk/settings/live', proof: null, isDone: false },
  ];
  return (
    <>
      <h1 className="text-3xl" id="desk-main">
        {desk('desk-frame.today')}
      </h1>
      <div className={facts.isLive ? 'mt-5' : 'mt-5 grid gap-8 lg:grid-cols-[26rem_1fr]'}>
        {!facts.isLive && <SetupTrail steps={trail} />}
        <div className="grid content-start gap-8">
          <dl className="flex flex-wrap gap-x-12 gap-y-4">
            <Figure name={desk('desk-frame.joined-in-week')} value={String(facts.joinedThisWeek)} />
            <Figure
              name={desk('desk-frame.received-in-week')}
              value={
                facts.incomeThisWeek.map((i) => t.money(i.amount, i.currency)).join(' + ') ||
                t.money(0, facts.currency)
              }
            />
            <Figure name={desk('desk-frame.left-in-week')} value={String(facts.leftThisWeek)} />
            <Figure name={desk('desk-frame.overdue-now')} value={String(facts.overdueTotal)} />
          </dl>
          {facts.overdue.length > 0 && (
            <section>
              <h2 className="text-xl">{desk('desk-frame.needs-you-failed-payments')}</h2>
              <Rows rows={facts.overdue} t={t} isRetry />
            </section>
          )}
          {facts.disputed.length > 0 && (
            <section>
              <h2 className="text-xl">
                <Sentence
                  words={desk('desk-frame.needs-you-disputed-payments')}
                  parts={{
                    link: (words) => (
                      <Link href="/desk/money?state=disputed" className="underline">
                        {words}
                      </Link>
                    ),
                  }}
                />
              </h2>
              <p className="mt-1 text-muted">{desk('desk-frame.answer-on-the-page-of')}</p>
              <Rows rows={facts.disputed} t={t} />
            </section>
          )}
          {facts.commentsWaiting > 0 && (
            <p>
              <Link href="/desk/content/comments" className="font-semibold text-spruce underline">
                {desk('desk-frame.comments-waiting', { count: facts.commentsWaiting })}
              </Link>
            </p>
          )}
          <section>
            <h2 className="text-xl">{desk('desk.upcoming-charges')}</h2>
            {facts.dueNext.length === 0 ? (
              <p className="mt-2 text-muted">{desk('desk-frame.none-no-subscription-is-running-yet')}</p>
            ) : (
              <Rows rows={facts.dueNext} t={t} />
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

type RowsProps = {
  rows: {
    id: string;
    memberId: MemberId;
    memberName: string;
    state: string;
    isDisputed: boolean;
    next: { at: Instant; amount: number; currency: string } | null;
  }[];
  t: Words;
  isRetry?: boolean;
};

function Rows({ rows, t, isRetry = false }: RowsProps) {
  return (
    <ul className="mt-2 max-w-3xl divide-y divide-line border-y border-line">
      {rows.map((row) => (
        <li
          key={row.id}
          className="grid grid-cols-[1fr_7rem] items-center gap-x-4 gap-y-1 py-2.5 sm:grid-cols-[1fr_7rem_18rem]"
        >
          <Link href={`/desk/members/${row.memberId}`} className="font-semibold hover:underline">
            {row.memberName}
          </Link>
          <span>
            <LifeMark t={t} state={row.isDisputed ? 'disputed' : row.state} />
          </span>
          <span className="figures text-muted max-sm:col-span-2 sm:text-right">
            {row.next && (
              <Sentence
                words={desk(isRetry ? 'desk-frame.retried-on' : 'desk-money.charge-on', {
                  amount: t.money(row.next.amount, row.next.currency),
                  date: t.date(row.next.at),
                })}
                parts={{ b: (words) => <b className="font-semibold text-ink">{words}</b> }}
              />
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
