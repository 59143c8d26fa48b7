import { addLength } from '../calendar';
import { isBefore, latest, type Instant } from '../instants';
import type { Offer } from '../offers/offer';
import { intervals, type Interval } from './access';
import { emptyBook, type Ask, type Book, type Discount, type LadderRules, type BillingContext } from './book';
import { creditLeft } from './credit';
import { nextDue } from './due';
import type { State } from './states';
import type { Event } from './event';
import { step } from './step';

type Outcome = 'ok' | 'declined';
type Card = Outcome | { slow: number; then: Outcome };

/** One member's life on one ladder, as worked examples tell it. */
export type Life = {
  zone: string;
  start: Instant;
  horizon: Instant;
  offer: string;
  offers: Record<string, Offer>;
  ladder: string[];
  settings: Omit<LadderRules, 'rungs'> & Pick<BillingContext, 'retryDays' | 'graceDays'>;
  card: [from: Instant, how: Card][];
  discount?: Discount;
  hadTrial?: boolean;
  events: ({ at: Instant; do: string } & Record<string, unknown>)[];
};

type Money = { at: Instant; amount: number; what: 'charge' | 'refund' | 'returned' };

export type Played = {
  money: Money[];
  access: Interval[];
  /** What could be spent at the horizon; minor units. */
  credit: number;
  refused: { event: number; why: string }[];
  final: State[];
};

/** Plays a life to its horizon: money, access, credit, what was refused, and how each subscription ends. */
export const play = (life: Life): Played => playBook(life, () => {}, bookBefore(life));

const TRACK = 'ladder';
const bookBefore = ({ hadTrial = false }: Life): Book =>
  emptyBook([{ track: TRACK, hadTrial, joinedAt: null, hasSwitchedUp: false }]);

/** The context of a life; what is new in it is named by counting. */
export function contextOf({ zone, offers, ladder, settings }: Life): BillingContext {
  const { retryDays, graceDays, ...rest } = settings;
  let made = 0;
  const newId = () => `${(made += 1)}`;
  return { zone, offers, ladders: { [TRACK]: { ...rest, rungs: ladder } }, retryDays, graceDays, newId };
}

/** The same from a book, telling of every book on the way. */
export function playBook(
  life: Life,
  tell: (book: Book, at: Instant, event: Event) => void,
  book: Book,
): Played {
  return new Player(life, contextOf(life), book, tell).play();
}

class Player {
  private readonly money: Money[] = [];
  private readonly refused: { event: number; why: string }[] = [];
  /** Transfers that settle later. */
  private settling: { at: Instant; charge: string; then: Outcome; event: number | null }[] = [];
  /** How far the life has been played. */
  private clock: Instant;

  constructor(
    private readonly life: Life,
    private readonly context: BillingContext,
    private book: Book,
    private readonly tell: (book: Book, at: Instant, event: Event) => void,
  ) {
    this.clock = life.start;
  }

  play(): Played {
    const { start, horizon, offer, discount } = this.life;
    this.take({ do: 'join', offer, discount: discount ?? null }, start, null);
    this.life.events.forEach((event, index) => {
      if (!isBefore(event.at, horizon)) return;
      this.until(event.at, true);
      this.clock = event.at;
      this.take(this.eventOf(event), event.at, index);
    });
    this.until(horizon, false);
    return {
      money: this.money,
      access: intervals(this.book, horizon),
      credit: creditLeft(this.book).reduce((sum, { amount }) => sum + amount, 0),
      refused: this.refused,
      final: this.book.subscriptions
        .filter((one) => one.beganAt !== null || this.wasFirst(one.id))
        .map((one) => one.state),
    };
  }

  private wasFirst(id: string): boolean {
    return this.book.subscriptions.some((one) => one.id === id && one.begunBy !== 'switch');
  }

  /** A payment is named by its place among the charges of the money that moved: from 0. */
  private eventOf({ at: _, ...event }: Life['events'][number]): Event {
    const { payment } = event;
    return (
      typeof payment === 'number' ? { ...event, payment: this.book.payments[payment]?.id } : event
    ) as Event;
  }

  /** Plays what falls due by itself up to an instant, which is included or not. */
  private until(end: Instant, included: boolean): void {
    const isIn = (at: Instant): boolean => isBefore(at, end) || (included && at === end);
    for (;;) {
      const settles = this.settling.reduce<Instant | null>(
        (a, b) => (a === null || isBefore(b.at, a) ? b.at : a),
        null,
      );
      const next = nextDue(this.book);
      // What an event makes fall due in the past happens now.
      const due = next === null ? null : latest(next, this.clock);
      const at = settles !== null && (due === null || !isBefore(due, settles)) ? settles : due;
      if (at === null || !isIn(at)) return;
      this.clock = at;
      if (at === settles) {
        const one = this.settling.find((each) => each.at === at);
        this.settling = this.settling.filter((each) => each !== one);
        if (one) this.answer(one.charge, one.then, at, one.event);
      } else this.take({ do: 'due' }, at, null);
    }
  }

  private take(event: Event, at: Instant, index: number | null): void {
    const before = this.book;
    const result = step(this.book, event, this.context, at);
    if (!result.ok) {
      if (index !== null) this.refused.push({ event: index, why: result.why });
      else throw new Error(`${event.do} was refused: ${result.why}`);
      return;
    }
    this.book = result.book;
    this.tell(this.book, at, event);
    this.note(before, at);
    for (const ask of result.asks) this.do(ask, at, index);
  }

  private do(ask: Ask, at: Instant, index: number | null): void {
    if (ask.do === 'collect') this.collect(ask.charge, at, index);
    else this.take({ do: 'refunded', refund: ask.refund }, at, null);
  }

  private collect(charge: string, at: Instant, index: number | null): void {
    const how = this.life.card.findLast(([from]) => !isBefore(at, from))?.[1] ?? 'ok';
    if (typeof how === 'string') return this.answer(charge, how, at, index);
    const settles = addLength(at, { n: how.slow, unit: 'hour' }, this.context.zone);
    this.settling.push({ at: settles, charge, then: how.then, event: index });
  }

  private answer(charge: string, how: Outcome, at: Instant, index: number | null): void {
    const kind = this.book.charges.find((one) => one.id === charge)?.kind;
    if (how === 'declined' && index !== null && kind !== 'first')
      this.refused.push({ event: index, why: 'declined' });
    this.take(how === 'ok' ? { do: 'paid', charge } : { do: 'declined', charge }, at, null);
  }

  /** Money that an event moved, by comparing the book before and after. */
  private note(before: Book, at: Instant): void {
    for (const [index, payment] of this.book.payments.entries()) {
      const was = before.payments[index];
      if (payment === was) continue;
      if (!was) this.money.push({ at, amount: payment.amount, what: 'charge' });
      if (payment.isReturned && !was?.isReturned)
        this.money.push({ at, amount: -payment.amount, what: 'returned' });
      const refunded = payment.refunded - (was?.refunded ?? 0);
      if (refunded > 0 && !payment.isReturned) this.money.push({ at, amount: -refunded, what: 'refund' });
      const lost = payment.lost - (was?.lost ?? 0);
      if (lost > 0) this.money.push({ at, amount: -lost, what: 'returned' });
    }
  }
}
