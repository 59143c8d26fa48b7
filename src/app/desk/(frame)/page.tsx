import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { localDate } from '@/core/calendar';
import type { LocalDate } from '@/core/instants';
import { today } from '@/desk/services/today';
import { ChecksNote } from '@/desk/ui/checks-note';
import { IncomeChart } from '@/desk/ui/income-chart';
import { NeedsList } from '@/desk/ui/needs-list';
import { NextDays } from '@/desk/ui/next-days';
import { SetupTrail } from '@/desk/ui/setup-trail';
import { trailSteps } from '@/desk/ui/trail-steps';
import { WeekFigures, type WeekFigure } from '@/desk/ui/week-figures';
import type { Words } from '@/words/speak';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-frame.today') };

type Facts = Extract<Awaited<ReturnType<typeof today>>, { ok: true }>['value'];

export default async function TodayPage() {
  await requireStaff();
  const [t, facts] = [await deskWords(), await shown(today(await currentActor()))];
  const { needs, trail, income, ahead, checks, seesMoney } = facts;
  const drawn = income?.currencies.filter(({ tiers }) => tiers.length > 0) ?? [];
  return (
    <>
      <h1 className="flex flex-wrap items-baseline gap-x-3 text-3xl" id="desk-main">
        {desk('desk-frame.today')}
        <span className="font-sans text-lg font-normal text-muted">
          {t.day(localDate(facts.now, facts.zone))}
        </span>
      </h1>
      <div className="mt-5 grid grid-cols-1 gap-x-10 gap-y-8 lg:grid-cols-[24rem_minmax(0,1fr)]">
        <div className="grid grid-cols-1 content-start gap-8">
          {trail && <SetupTrail steps={trailSteps(trail, t)} />}
          <NeedsList needs={needs} t={t} />
          <ChecksNote checks={checks} seesMoney={seesMoney} t={t} />
        </div>
        <div className="grid grid-cols-1 content-start gap-8">
          <WeekFigures label={desk('desk-frame.the-week')} figures={figuresOf(facts, t)} />
          {income &&
            drawn.map(({ currency, tiers }) => (
              <section key={currency}>
                <h2 className="text-xl">{desk('desk-frame.received-by-day', { currency })}</h2>
                <div className="mt-2">
                  <IncomeChart
                    label={desk('desk-frame.received-by-day', { currency })}
                    times={income.days.map((date) => t.shortDay(date))}
                    currency={currency}
                    tiers={tiers}
                  />
                </div>
              </section>
            ))}
          {seesMoney && <NextDays days={ahead} t={t} />}
        </div>
      </div>
    </>
  );
}

function figuresOf({ week, currency }: Facts, t: Words): WeekFigure[] {
  const { from, members, income } = week;
  const change = (now: number, before: number, words: (n: number) => string): string =>
    now === before ? '' : `${now > before ? '+' : '−'}${words(Math.abs(now - before))}`;
  const count = (name: string, now: number, before: number, href: string, isGood: boolean): WeekFigure => ({
    name,
    value: t.count(now),
    href,
    change: change(now, before, (n) => t.count(n)),
    isGood,
  });
  const sum = (rows: { currency: string; amount: number }[], of: string): number =>
    rows.find((row) => row.currency === of)?.amount ?? 0;
  const currencies = income
    ? [...new Set([currency, ...[...income.now, ...income.before].map((row) => row.currency)])]
    : [];
  return [
    ...(members
      ? [
          count(
            desk('desk-frame.joined-in-week'),
            members.joined,
            members.joinedBefore,
            listOf(from, 'joined'),
            members.joined >= members.joinedBefore,
          ),
          count(
            desk('desk-frame.left-in-week'),
            members.left,
            members.leftBefore,
            listOf(from, 'left'),
            members.left <= members.leftBefore,
          ),
        ]
      : []),
    ...currencies.map((one): WeekFigure => {
      const [now, before] = [sum(income?.now ?? [], one), sum(income?.before ?? [], one)];
      return {
        name: desk('desk-frame.received-in-week'),
        value: t.money(now, one),
        href: `/desk/money/payments?state=succeeded&since=${from}`,
        change: change(now, before, (n) => t.money(n, one, true)),
        isGood: now >= before,
      };
    }),
  ];
}

const listOf = (from: LocalDate, what: 'joined' | 'left'): string =>
  what === 'joined' ? `/desk/members?state=some&joinedFrom=${from}` : `/desk/members?leftFrom=${from}`;
