import clsx from 'clsx';
import { Link } from '@/kit/link';
import type { Need } from '@/core/reports/today';
import type { Words } from '@/words/speak';
import { desk } from '@/words/desk';

type Line = { title: string; detail: string; href: string; tone: keyof typeof TONES };
const TONES = {
  urgent: 'bg-closed-wash text-closed',
  soon: 'bg-metered-wash text-metered',
  look: 'bg-later-wash text-later',
};

/** What waits for staff, each with the list that it is in; designed for none as well. */
export function NeedsList({ needs, t }: { needs: Need[]; t: Words }) {
  return (
    <section aria-labelledby="needs">
      <h2 id="needs" className="text-xl">
        {desk('desk-frame.needs-you')}
      </h2>
      {needs.length === 0 ? (
        <p className="mt-2 rounded-card border border-line bg-surface px-4 py-3.5 text-muted">
          {desk('desk-frame.nothing-needs-you')}
        </p>
      ) : (
        <ul className="mt-2 divide-y divide-line rounded-card border border-line bg-surface">
          {needs.map((need) => {
            const { title, detail, href, tone } = lineOf(need, t);
            return (
              <li key={need.kind}>
                <Link
                  href={href}
                  className="grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-4 px-4 py-3 hover:bg-sunken"
                >
                  <span
                    aria-hidden
                    className={clsx(
                      'figures grid h-7 min-w-7 place-items-center rounded-md px-1.5 text-sm font-bold',
                      TONES[tone],
                    )}
                  >
                    {need.count > 999 ? '999+' : need.count}
                  </span>
                  <span>
                    <b className="block leading-snug">{title}</b>
                    {detail && <span className="block text-[0.9375rem] text-muted">{detail}</span>}
                  </span>
                </Link>
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

function lineOf(need: Need, t: Words): Line {
  const { count } = need;
  switch (need.kind) {
    case 'disputed':
      return {
        title: need.name
          ? desk('desk-frame.disputes-a-payment', { name: need.name })
          : desk('desk-frame.payments-disputed', { count }),
        detail: desk('desk-frame.answer-on-the-page-of'),
        href: '/desk/money?state=disputed',
        tone: 'urgent',
      };
    case 'failed':
      return {
        title: need.name
          ? desk('desk-frame.payment-failed-of', { name: need.name })
          : desk('desk-frame.payments-failed', { count }),
        detail: [
          need.sums.map(({ amount, currency }) => t.money(amount, currency)).join(' + '),
          need.next && desk('desk-frame.next-try', { date: t.date(need.next) }),
        ]
          .filter(Boolean)
          .join(' · '),
        href: '/desk/money/failed',
        tone: 'urgent',
      };
    case 'books':
      return {
        title: desk('desk-frame.books-differ', { count }),
        detail: desk('desk-frame.books-differ-hint'),
        href: '/desk/money/gateways',
        tone: 'urgent',
      };
    case 'leaks':
      return {
        title: desk('desk-frame.leaks-found', { count }),
        detail: desk('desk-frame.leaks-found-hint'),
        href: '/desk/access/check',
        tone: 'urgent',
      };
    case 'unmatched':
      return {
        title: desk('desk-frame.transfers-unmatched', { count }),
        detail: desk('desk-frame.transfers-unmatched-hint'),
        href: '/desk/money/transfers',
        tone: 'soon',
      };
    case 'awaited':
      return {
        title: desk('desk-frame.transfers-awaited', { count }),
        detail: '',
        href: '/desk/money/transfers',
        tone: 'soon',
      };
    case 'refunds-to-send':
      return {
        title: desk('desk-frame.refunds-to-send', { count }),
        detail: desk('desk-frame.refunds-to-send-hint'),
        href: '/desk/money/transfers',
        tone: 'soon',
      };
    case 'expiring':
      return {
        title: desk('desk-frame.cards-expire', { count }),
        detail: desk('desk-frame.cards-expire-hint'),
        href: '/desk/money?state=expiring',
        tone: 'look',
      };
    case 'messages':
      return {
        title: desk('desk-frame.messages-failed', { count }),
        detail: '',
        href: '/desk/money/messages?state=failed',
        tone: 'soon',
      };
    case 'warnings':
      return {
        title: desk('desk-frame.rules-warn', { count }),
        detail: desk('desk-frame.rules-warn-hint'),
        href: '/desk/access',
        tone: 'look',
      };
    case 'comments':
      return {
        title: desk('desk-frame.comments-waiting', { count }),
        detail: '',
        href: '/desk/content/comments',
        tone: 'look',
      };
  }
}
