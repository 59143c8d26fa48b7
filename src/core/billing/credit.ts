import type { Book, Charge, Credit, Payment, Stretch, UnusedCredit } from './book';
import { named, own } from './book';
import type { Work } from './work';

/** What can still be spent of it. Frozen while its payment is disputed. */
export function spendable(book: Book, credit: Credit): number {
  const payment = book.payments.find(({ id }) => id === credit.payment);
  return payment?.dispute === 'open' ? 0 : leftOf(credit);
}

export const leftOf = ({ given, spent, reserved, void: gone }: Credit): number =>
  given - spent - reserved - gone;

/** What a member can spend, by currency; minor units. */
export function creditLeft(book: Book): { currency: string; amount: number }[] {
  const left = new Map<string, number>();
  for (const credit of book.credits) {
    const amount = spendable(book, credit);
    if (amount > 0) left.set(credit.currency, (left.get(credit.currency) ?? 0) + amount);
  }
  return [...left]
    .map(([currency, amount]) => ({ currency, amount }))
    .sort((a, b) => (a.currency < b.currency ? -1 : 1));
}

/**
 * What can still be refunded of a payment, in minor units: not what was given as credit, unless that is void, nor what is
 * on its way back.
 */
export function refundable(book: Book, payment: Payment): number {
  const given = book.credits
    .filter((credit) => credit.payment === payment.id)
    .reduce((sum, credit) => sum + credit.given - credit.void, 0);
  const asked = book.refunds
    .filter((refund) => refund.payment === payment.id && refund.state === 'asked')
    .reduce((sum, refund) => sum + refund.amount, 0);
  return payment.amount - payment.refunded - payment.lost - given - asked;
}

/** Of a charge, by credit, the oldest first; reserved until the charge is paid or dropped. */
export function reserve(book: Book, amount: number, currency: string): Charge['credit'] {
  const taken: Charge['credit'] = [];
  let left = amount;
  for (const credit of book.credits) {
    const here = credit.currency === currency ? Math.min(left, spendable(book, credit)) : 0;
    if (here <= 0) continue;
    credit.reserved += here;
    left -= here;
    taken.push({ credit: credit.id, amount: here });
  }
  return taken;
}

/** What was reserved is free again. */
export function release(book: Book, charge: Charge): void {
  for (const { credit, amount } of charge.credit) named(book.credits, credit).reserved -= amount;
  charge.credit = [];
}

/** What was reserved is spent. */
export function spend(book: Book, charge: Charge): void {
  for (const { credit, amount } of charge.credit) {
    const one = named(book.credits, credit);
    one.reserved -= amount;
    one.spent += amount;
    book.uses.push({ credit, charge: charge.id, amount });
  }
  charge.credit = [];
}

/** The payment that a charge was paid by, where money was needed. */
export const paymentOf = (book: Book, charge: string): Payment | undefined =>
  book.payments.find((payment) => payment.charge === charge && !payment.isReturned);

/** Credit that was spent on a charge, in the order in which it was spent. */
export const spentOn = (book: Book, charge: string): number =>
  book.uses.reduce((sum, use) => (use.charge === charge ? sum + use.amount : sum), 0);

/** Money and credit spent on a stretch, without joining fee, less refunds; minor units. */
export function worthOf(book: Book, stretch: Stretch): number {
  const charge = book.charges.find((one) => one.id === stretch.charge);
  if (!charge) return 0;
  const payment = paymentOf(book, charge.id);
  const all =
    (payment?.amount ?? 0) + spentOn(book, charge.id) - charge.joiningFee - (payment?.refunded ?? 0);
  return Math.max(0, all);
}

/**
 * Gives credit for what is unused of a charge: of its own payment as far as that can be refunded, and the rest goes into
 * the credits that were spent on it, in order. @returns where it went
 */
export function giveUnused({ book, context }: Work, { charge, amount }: UnusedCredit): Charge['credit'] {
  const payment = paymentOf(book, charge);
  const fresh = payment ? Math.min(amount, Math.max(0, refundable(book, payment))) : 0;
  const given: Charge['credit'] = [];
  if (payment && fresh > 0) {
    const id = context.newId();
    const { currency } = named(book.charges, charge);
    book.credits.push({
      id,
      payment: payment.id,
      charge,
      currency,
      given: fresh,
      spent: 0,
      reserved: 0,
      void: 0,
    });
    given.push({ credit: id, amount: fresh });
  }
  return [...given, ...takeBackUses(book, charge, amount - fresh)];
}

/** Spends what was just given on a charge, up to an amount. */
export function spendGiven(book: Book, charge: string, given: Charge['credit'], most: number): void {
  let left = most;
  for (const { credit, amount } of given) {
    const here = Math.min(left, amount);
    if (here <= 0) continue;
    named(book.credits, credit).spent += here;
    book.uses.push({ credit, charge, amount: here });
    left -= here;
  }
}

/** Credit that was spent on a charge comes into its credits again, up to an amount. @returns where it went */
export function takeBackUses(book: Book, charge: string, most = Infinity): Charge['credit'] {
  let left = most;
  const back: Charge['credit'] = [];
  for (const use of [...book.uses]) {
    if (use.charge !== charge || left <= 0) continue;
    const here = Math.min(left, use.amount);
    named(book.credits, use.credit).spent -= here;
    own(book.uses, use).amount -= here;
    left -= here;
    back.push({ credit: use.credit, amount: here });
  }
  return back;
}

/** What is left of the credit of a payment that was refunded or lost counts for nothing; what is reserved stays. */
export function voidCreditOf(book: Book, payment: string): void {
  for (const credit of book.credits) if (credit.payment === payment) credit.void += leftOf(credit);
}
