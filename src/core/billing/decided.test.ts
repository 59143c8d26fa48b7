import { describe, expect, it } from 'vitest';
import { fromMs, toMs, type Instant } from '../instants';
import type { Offer } from '../offers/offer';
import { play, type Life } from './play';

/** Days since the start; a week is the period of most offers here, so that a day is worth a seventh. */
const START = '2027-01-01T00:00:00Z';
const day = (n: number): Instant => fromMs(toMs(START) + n * 86_400_000);
const since = (at: Instant): string => String((toMs(at) - toMs(START)) / 86_400_000);

const every = (
  amount: number,
  tier: string,
  more: Partial<Offer> & { times?: number; days?: number } = {},
): Offer => {
  const { times = null, days = 7, ...rest } = more;
  const step = { kind: 'repeat' as const, amount, every: { n: days, unit: 'day' as const }, times };
  return { tier, currency: 'GBP', steps: [step], after: 'end', ...rest };
};
const forGood = (amount: number, tier: string): Offer => ({
  tier,
  currency: 'GBP',
  steps: [{ kind: 'once', amount, lasts: 'forever' }],
  after: 'end',
});
const week = (amount: number): Offer => ({
  tier: 'observer',
  currency: 'GBP',
  steps: [{ kind: 'once', amount, lasts: { n: 7, unit: 'day' } }],
  after: 'end',
  renewal: { daysBefore: 3 },
});
const OFFERS: Record<string, Offer> = {
  o: every(700, 'observer'),
  w: every(1400, 'warden'),
  k: every(2800, 'keeper'),
};

type Told = {
  offer?: string;
  offers?: Record<string, Offer>;
  /** Day from which every attempt meets it. */
  card?: [number, Life['card'][number][1]][];
  events?: [number, string, Record<string, unknown>?][];
  until: number;
  settings?: Partial<Life['settings']>;
};

/** A life in short: money as "day: amount", access as "tier from–to since", what was refused by its place. */
function lived({ offer = 'o', offers = {}, card = [], events = [], until, settings }: Told) {
  const result = play({
    zone: 'UTC',
    start: START,
    horizon: day(until),
    offer,
    offers: { ...OFFERS, ...offers },
    ladder: ['observer', 'warden', 'keeper'],
    settings: {
      retryDays: [1, 3, 5, 7],
      graceDays: 5,
      creditUnused: true,
      waitDays: 0,
      downAtOnce: false,
      ...settings,
    },
    card: card.map(([from, how]) => [day(from), how]),
    events: events.map(([at, what, more]) => ({ at: day(at), do: what, ...more })),
  });
  return {
    money: result.money.map(
      ({ at, amount, what }) => `${since(at)}: ${amount}${what === 'returned' ? ' returned' : ''}`,
    ),
    access: result.access.map(
      (one) =>
        `${one.tier} ${since(one.from)}–${one.to ? since(one.to) : ''}${one.since ? ` since ${since(one.since)}` : ''}`,
    ),
    credit: result.credit,
    refused: result.refused.map(({ event }) => event),
    final: result.final,
  };
}
const refundAll = (payment: number, access: 'take' | 'keep') => ({ payment, amount: 'all', access });

describe('refunds, disputes and credit', () => {
  it('taking back the running stretch ends the subscription and its pending switch', () => {
    expect(
      lived({
        offer: 'w',
        events: [
          [2, 'switch', { to: 'o' }],
          [3, 'refund', refundAll(0, 'take')],
        ],
        until: 20,
      }),
    ).toMatchObject({ money: ['0: 1400', '3: -1400'], access: ['warden 0–3'], final: ['ended'] });
  });

  it('taking back a past stretch restores the credit spent on it', () => {
    expect(
      lived({
        events: [
          [2, 'switch', { to: 'w' }],
          [10, 'refund', refundAll(1, 'take')],
        ],
        until: 12,
      }),
    ).toMatchObject({
      money: ['0: 700', '2: 900', '9: 1400', '10: -900'],
      credit: 500,
      final: ['ended', 'active'],
    });
  });

  it('an instalment of what is kept by now: the tier stays', () => {
    expect(
      lived({
        offers: { o: every(700, 'observer', { times: 2, after: 'keep' }) },
        events: [[15, 'refund', refundAll(1, 'take')]],
        until: 30,
      }),
    ).toMatchObject({ money: ['0: 700', '7: 700', '15: -700'], access: ['observer 0–'], final: ['ended'] });
  });

  it('credit that a refund made void no longer counts as given', () => {
    expect(
      lived({
        offers: { o: every(7000, 'observer', { days: 70 }) },
        events: [
          [7, 'switch', { to: 'w' }],
          [8, 'refund', refundAll(0, 'keep')],
          [9, 'refund', refundAll(0, 'keep')],
        ],
        until: 15,
      }),
    ).toMatchObject({ money: ['0: 7000', '8: -700', '9: -4900', '14: 1400'], credit: 0, refused: [] });
  });

  it('a period paid by money and credit is credited from its own payment first, then into what it spent', () => {
    const told = lived({
      events: [
        [2, 'switch', { to: 'w' }],
        [3, 'refund', { payment: 1, amount: 300, access: 'keep' }],
        [5, 'switch', { to: 'k' }],
      ],
      until: 6,
    });
    // 1400 less 300, four of seven days: 629. The payment of 900 can give 600 of it, the credit of the first takes 29.
    expect(told).toMatchObject({ money: ['0: 700', '2: 900', '3: -300', '5: 2171'], credit: 0 });
  });

  it('a dispute is opened once, and a disputed payment is not refunded', () => {
    expect(
      lived({
        events: [
          [1, 'dispute', { payment: 0 }],
          [2, 'dispute', { payment: 0 }],
          [2, 'refund', refundAll(0, 'keep')],
          [3, 'dispute-won', { payment: 0 }],
          [4, 'dispute', { payment: 0 }],
          [5, 'refund', refundAll(0, 'keep')],
          [6, 'dispute', { payment: 0 }],
        ],
        until: 7,
      }),
    ).toMatchObject({ money: ['0: 700', '5: -700'], refused: [1, 2, 4, 6] });
  });

  it('a disputed payment of what is ended and kept for good leaves the tier', () => {
    expect(
      lived({
        offers: { o: forGood(7000, 'observer') },
        events: [
          [2, 'switch', { to: 'w' }],
          [3, 'dispute', { payment: 0 }],
          [4, 'dispute-lost', { payment: 0 }],
        ],
        until: 6,
      }).access,
    ).toEqual(['observer 0–', 'warden 2– since 0']);
  });

  it('the charge that a won dispute begins, declined, is a first failure with a grace of its own', () => {
    expect(
      lived({
        card: [[9, 'declined']],
        events: [
          [3, 'dispute', { payment: 0 }],
          [10, 'dispute-won', { payment: 0 }],
        ],
        until: 40,
      }),
    ).toMatchObject({
      money: ['0: 700'],
      access: ['observer 0–3', 'observer 10–15 since 0'],
      final: ['ended'],
    });
  });

  it('by a slow transfer, it is restored at once', () => {
    expect(
      lived({
        card: [
          [9, { slow: 48, then: 'ok' }],
          [11, 'ok'],
        ],
        events: [
          [3, 'dispute', { payment: 0 }],
          [10, 'dispute-won', { payment: 0 }],
        ],
        until: 18,
      }),
    ).toMatchObject({
      money: ['0: 700', '12: 700', '17: 700'],
      access: ['observer 0–3', 'observer 10– since 0'],
    });
  });

  it('what is cancelled ends at its end, also while it is disputed', () => {
    expect(
      lived({
        events: [
          [1, 'cancel'],
          [3, 'dispute', { payment: 0 }],
          [20, 'dispute-won', { payment: 0 }],
        ],
        until: 30,
      }),
    ).toMatchObject({ money: ['0: 700'], access: ['observer 0–3'], final: ['ended'] });
  });
});

describe('late money', () => {
  it('after an unpaid end keeps what was asked, joining fee included', () => {
    const trial = { kind: 'trial' as const, amount: 0, lasts: { n: 7, unit: 'day' as const } };
    const withFee: Offer = {
      ...every(700, 'observer'),
      joiningFee: { amount: 1000, due: 'first-payment' },
      steps: [trial, ...every(700, 'observer').steps],
    };
    expect(
      lived({
        offers: { o: withFee },
        card: [
          [6, 'declined'],
          [19, 'ok'],
        ],
        events: [[20, 'late-success']],
        until: 28,
      }).money,
    ).toEqual(['20: 1700', '27: 700']);
  });

  it('is returned where another subscription of the ladder runs', () => {
    expect(
      lived({
        card: [
          [6, 'declined'],
          [14.5, 'ok'],
        ],
        events: [
          [15, 'join', { offer: 'w' }],
          [16, 'late-success'],
        ],
        until: 17,
      }).money,
    ).toEqual(['0: 700', '15: 1400', '16: 700', '16: -700 returned']);
  });

  it('of the declined charge of a resume is refused', () => {
    expect(
      lived({
        card: [[8, 'declined']],
        events: [
          [1, 'pause'],
          [9, 'resume'],
          [10, 'late-success'],
        ],
        until: 12,
      }),
    ).toMatchObject({ money: ['0: 700'], refused: [1, 2], final: ['paused'] });
  });

  it('of a charge that had credit reserved: the credit was free again at its end, and only the money counts', () => {
    const told = (until: number) =>
      lived({
        offer: 'w',
        settings: { downAtOnce: true },
        card: [[8, 'declined']],
        events: [
          [2, 'switch', { to: 'o' }],
          [20, 'late-success'],
        ],
        until,
      });
    // 1000 for five days of 1400; 700 of it paid the first week of the new offer, 300 were reserved for the second.
    expect(told(15)).toMatchObject({ credit: 0, final: ['ended', 'overdue'] });
    expect(told(19)).toMatchObject({ credit: 300, final: ['ended', 'ended'] });
    expect(told(21)).toMatchObject({
      money: ['0: 1400', '20: 400'],
      credit: 300,
      final: ['ended', 'active'],
    });
  });

  it('drops a move that was pending at the unpaid end', () => {
    expect(
      lived({
        offers: { v: every(900, 'observer') },
        card: [
          [6, 'declined'],
          [19, 'ok'],
        ],
        events: [
          [8, 'move', { to: 'v' }],
          [20, 'late-success'],
        ],
        until: 28,
      }).money,
    ).toEqual(['0: 700', '20: 700', '27: 700']);
  });
});

describe('switching', () => {
  it('a slow transfer for the first charge of a pending down leaves the calendar as it was', () => {
    expect(
      lived({
        offer: 'w',
        card: [
          [6, { slow: 24, then: 'ok' }],
          [9, 'ok'],
        ],
        events: [[2, 'switch', { to: 'o' }]],
        until: 15,
      }),
    ).toMatchObject({ money: ['0: 1400', '8: 700', '14: 700'], access: ['warden 0–7', 'observer 7–'] });
  });

  it('a pending down whose first charge is declined ends the old one and leaves the new one overdue', () => {
    expect(
      lived({ offer: 'w', card: [[6, 'declined']], events: [[2, 'switch', { to: 'o' }]], until: 9 }),
    ).toMatchObject({ money: ['0: 1400'], final: ['ended', 'overdue'] });
  });

  it('a down that the owner allows at once is credited as an up', () => {
    expect(
      lived({ offer: 'w', events: [[2, 'switch', { to: 'o' }]], until: 8, settings: { downAtOnce: true } }),
    ).toMatchObject({
      money: ['0: 1400'],
      access: ['observer 2–', 'warden 0–2'].sort().reverse(),
      credit: 300,
    });
  });

  it('a down from what is held for good is at once, and it stays', () => {
    expect(
      lived({
        offer: 'w',
        offers: { w: forGood(7000, 'warden') },
        events: [[3, 'switch', { to: 'o' }]],
        until: 6,
      }),
    ).toMatchObject({ money: ['0: 7000', '3: 700'], access: ['warden 0–', 'observer 3–'] });
  });

  it('a down is refused while cancelling, and a second one replaces the first', () => {
    expect(
      lived({
        offer: 'k',
        events: [
          [1, 'cancel'],
          [2, 'switch', { to: 'o' }],
          [3, 'undo'],
          [4, 'switch', { to: 'w' }],
          [5, 'switch', { to: 'o' }],
        ],
        until: 8,
      }),
    ).toMatchObject({ money: ['0: 2800', '7: 700'], refused: [1] });
  });

  it('an event that was refused leaves a quote good; one that was not makes it void', () => {
    const told = (between: [number, string, Record<string, unknown>?]) =>
      lived({
        events: [[2, 'quote', { to: 'w' }], between, [2.03, 'switch', { to: 'w', quote: true }]],
        until: 3,
      });
    expect(told([2.01, 'undo']).refused).toEqual([1]);
    expect(told([2.01, 'pause']).refused).toEqual([2]);
  });

  it('a retry that passes while a switch is under way is left out', () => {
    expect(
      lived({
        card: [
          [6, 'declined'],
          [7.5, { slow: 36, then: 'declined' }],
          [9.5, 'ok'],
        ],
        events: [[7.5, 'switch', { to: 'w' }]],
        until: 13,
      }),
    ).toMatchObject({ money: ['0: 700', '10: 700'], refused: [0], final: ['active'] });
  });

  it('the wait before a first switch up is counted from when the first joining was paid', () => {
    expect(
      lived({
        card: [
          [0, { slow: 72, then: 'ok' }],
          [1, 'ok'],
        ],
        events: [
          [12, 'switch', { to: 'w' }],
          [13, 'switch', { to: 'w' }],
        ],
        until: 14,
        settings: { waitDays: 10 },
      }).refused,
    ).toEqual([0]);
  });

  it('an up from instalments that are paid and kept by now leaves them', () => {
    expect(
      lived({
        offers: { o: every(700, 'observer', { times: 2, after: 'keep' }) },
        events: [[20, 'join', { offer: 'w' }]],
        until: 22,
      }),
    ).toMatchObject({ money: ['0: 700', '7: 700', '20: 1400'], access: ['observer 0–', 'warden 20–'] });
  });
});

describe('cancel, pause, resume, renew', () => {
  it('an undo finds a pending switch or pause gone', () => {
    expect(
      lived({
        offer: 'w',
        events: [
          [1, 'switch', { to: 'o' }],
          [2, 'cancel'],
          [3, 'undo'],
        ],
        until: 8,
      }),
    ).toMatchObject({ money: ['0: 1400', '7: 1400'], final: ['active'] });
  });

  it('what is kept and charges nothing more cannot be cancelled, nor paused', () => {
    expect(
      lived({
        offers: { o: forGood(700, 'observer') },
        events: [
          [1, 'cancel'],
          [2, 'cancel-now'],
          [3, 'pause'],
        ],
        until: 4,
      }),
    ).toMatchObject({ refused: [0, 1, 2], final: ['active'] });
  });

  it('while the first payment is awaited it can be cancelled, and nothing else; the money is returned', () => {
    expect(
      lived({
        card: [
          [0, { slow: 72, then: 'ok' }],
          [1, 'ok'],
        ],
        events: [
          [1, 'pause'],
          [1.5, 'join', { offer: 'w' }],
          [1.7, 'expire'],
          [2, 'cancel'],
          [2.5, 'join', { offer: 'o' }],
        ],
        until: 5,
      }),
    ).toMatchObject({
      money: ['2.5: 700', '3: 700', '3: -700 returned'],
      access: ['observer 2.5–'],
      refused: [0, 1, 2],
      final: ['ended', 'active'],
    });
  });

  it('grace ends while an attempt is under way', () => {
    expect(
      lived({
        card: [
          [6, 'declined'],
          [11, { slow: 36, then: 'ok' }],
          [13, 'ok'],
        ],
        events: [[11.5, 'pay-now']],
        until: 14.5,
      }),
    ).toMatchObject({
      money: ['0: 700', '13: 700', '14: 700'],
      access: ['observer 0–12', 'observer 13– since 0'],
    });
  });

  it('a pause is refused in the last period, and withdrawn before it began', () => {
    expect(
      lived({
        offers: { o: every(700, 'observer', { times: 2 }) },
        events: [
          [1, 'pause'],
          [2, 'resume'],
          [8, 'pause'],
        ],
        until: 15,
      }),
    ).toMatchObject({ money: ['0: 700', '7: 700'], refused: [2], final: ['ended'] });
  });

  it('what was moved to a version while it was paused is resumed under it, and stays with it', () => {
    expect(
      lived({
        offers: { v: every(900, 'observer') },
        events: [
          [1, 'pause'],
          [8, 'move', { to: 'v' }],
          [10, 'resume'],
        ],
        until: 25,
      }).money,
    ).toEqual(['0: 700', '10: 900', '17: 900', '24: 900']);
  });

  it('a renewal undoes a cancel, and after a lapse is another subscription', () => {
    expect(
      lived({
        offers: { o: week(700) },
        events: [
          [3, 'cancel'],
          [5, 'renew'],
          [20, 'renew'],
        ],
        until: 21,
      }),
    ).toMatchObject({
      money: ['0: 700', '5: 700', '20: 700'],
      access: ['observer 0–14', 'observer 20–'],
      final: ['ended', 'active'],
    });
  });

  it('while a renewal is under way nothing falls due at the end', () => {
    expect(
      lived({
        offers: { o: week(700) },
        card: [[5, { slow: 72, then: 'ok' }]],
        events: [
          [6, 'renew'],
          [8, 'cancel'],
        ],
        until: 15,
      }),
    ).toMatchObject({
      money: ['0: 700', '9: 700'],
      access: ['observer 0–14'],
      refused: [1],
      final: ['ended'],
    });
  });
});
