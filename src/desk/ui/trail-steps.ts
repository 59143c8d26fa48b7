import type { Trail } from '@/core/reports/today';
import type { Words } from '@/words/speak';
import { desk } from '@/words/desk';

export type Step = { title: string; href: string; proof: string | null; isDone: boolean };

/** The steps to a site that takes members, each with what proves it, in words. */
export function trailSteps(trail: Trail, t: Words): Step[] {
  const { gateway, tiers, closed, purchase, renewal, sender, legal } = trail;
  const money = (paid: { amount: number; currency: string }): string => t.money(paid.amount, paid.currency);
  return [
    {
      title: desk('desk-frame.connect-a-gateway-in-test-mode'),
      href: '/desk/money/gateways',
      proof:
        gateway &&
        (gateway.isHeard
          ? desk('desk-frame.is-connected-and-its-webhook', { label: gateway.label })
          : desk('desk-frame.is-connected-its-webhook-has', { label: gateway.label })),
      isDone: gateway?.isHeard ?? false,
    },
    {
      title: desk('desk-frame.make-tiers-and-say-what'),
      href: '/desk/tiers',
      proof:
        tiers.onSale > 0
          ? desk('desk-frame.of-tiers-can-be-joined', { tiersOnSale: tiers.onSale, tiers: tiers.all })
          : null,
      isDone: tiers.onSale > 0,
    },
    {
      title: desk('desk-frame.close-something'),
      href: '/desk/access',
      proof: closed > 0 ? desk('desk-frame.a-visitor-is-turned-away', { turnedAway: closed }) : null,
      isDone: closed > 0,
    },
    {
      title: desk('desk-frame.put-join-in-the-menu'),
      href: '/desk/content/menu',
      // The header has a button of its own where the menu has no entry.
      proof: trail.hasJoinInMenu
        ? desk('desk-frame.join-is-in-the-menu')
        : desk('desk-frame.join-is-in-the-header'),
      isDone: tiers.onSale > 0,
    },
    {
      title: desk('desk-frame.see-a-visitor-turned-away'),
      href: '/desk/access/check',
      proof: trail.checkedAt
        ? desk('desk-frame.no-closed-words-got-out', { date: t.dateTime(trail.checkedAt) })
        : trail.hasLeaks
          ? desk('desk-frame.the-check-found-leaks')
          : null,
      isDone: trail.checkedAt !== null && closed > 0,
    },
    {
      title: desk('desk-frame.join-with-a-test-card'),
      href: '/join',
      proof:
        purchase &&
        desk('desk-frame.a-test-payment-of-arrived', {
          amount: money(purchase),
          date: t.dateTime(purchase.at),
        }),
      isDone: purchase !== null,
    },
    {
      title: desk('desk-frame.renew-it-by-the-clock'),
      href: '/desk/money/due',
      proof: renewal && desk('desk-frame.it-renewed', { amount: money(renewal), date: t.date(renewal.at) }),
      isDone: renewal !== null,
    },
    {
      title: desk('desk-frame.set-the-sender'),
      href: '/desk/settings/mail',
      proof: sender.sentAt
        ? desk('desk-frame.mail-went-out', { address: sender.address, date: t.dateTime(sender.sentAt) })
        : null,
      isDone: sender.sentAt !== null,
    },
    {
      title: desk('desk-frame.write-the-legal-pages'),
      href: '/desk/content/menu',
      proof:
        legal.written.length > 0
          ? desk('desk-frame.are-written', {
              pages: t.list(legal.written),
              count: legal.written.length,
              all: legal.all,
            })
          : null,
      isDone: legal.written.length === legal.all,
    },
    { title: desk('desk.go-live'), href: '/desk/settings/live', proof: null, isDone: false },
  ];
}
