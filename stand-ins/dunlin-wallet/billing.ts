import { addLength } from '../../src/core/calendar';
import { compare, isBefore, type Instant } from '../../src/core/instants';
import { randomId } from '../lib/http';
import type { Payment } from '../lib/payments';
import type { Agreement } from './state';

const DAY = (n: number) => ({ n, unit: 'day' }) as const;

/** The end of the period that the next bill is for; null where nothing follows it. */
function periodEnd(a: Agreement): Instant | null {
  const stage = a.stages[a.stage];
  return stage?.every ? addLength(a.stageFrom, stage.every, a.zone, a.n + 1) : null;
}

/** Moves to the next period, whether or not anything is billed for it. */
function advance(a: Agreement): void {
  const end = periodEnd(a);
  const stage = a.stages[a.stage];
  a.nextAt = end;
  if (!stage || end === null) return;
  a.n += 1;
  if (stage.times === null || a.n < stage.times) return;
  a.stage += 1;
  a.n = 0;
  a.stageFrom = end;
  if (!a.stages[a.stage]) a.nextAt = null;
}

function purseRefuses(a: Agreement): boolean {
  if (a.purse === 'empty') return true;
  if (a.purse === 'empties') return a.bills > 0;
  return a.purse === 'fills-up' && a.bills === 1 && a.tries === 0;
}

/** Bills what is due under one agreement at its time; null where its next period costs nothing. */
function billOne(a: Agreement, at: Instant): Payment | null {
  const stage = a.stages[a.stage];
  const amount = stage ? (a.n === 0 ? stage.first : stage.amount) : 0;
  if (amount <= 0) {
    advance(a);
    return null;
  }
  const refused = purseRefuses(a);
  const payment: Payment = {
    id: randomId('bill'),
    account: a.account,
    key: null,
    agreement: a.id,
    state: refused ? 'declined' : 'succeeded',
    code: refused ? 'no-funds' : null,
    amount,
    currency: a.currency,
    note: a.note,
    at,
    refunds: [],
    dispute: null,
  };
  if (refused) {
    const wait = a.retryDays[a.tries];
    a.failedAt ??= at;
    a.tries += 1;
    a.nextAt = wait === undefined ? null : addLength(a.failedAt, DAY(wait), a.zone);
    if (wait === undefined) a.state = 'ended';
    return payment;
  }
  const late = a.failedAt !== null;
  a.bills += 1;
  a.failedAt = null;
  a.tries = 0;
  advance(a);
  // After a late success the calendar continues; periods that have wholly passed are not billed.
  for (let end = periodEnd(a); late && a.nextAt && end && compare(end, at) <= 0; end = periodEnd(a))
    advance(a);
  return payment;
}

/** Bills everything that is due by `now` under running agreements, in order of time. */
export function billDue(agreements: Agreement[], now: Instant): Payment[] {
  const made: Payment[] = [];
  const due = (): Agreement | undefined =>
    agreements
      .filter((a) => a.state === 'running' && a.nextAt !== null && !isBefore(now, a.nextAt))
      .sort((a, b) => (a.nextAt && b.nextAt ? compare(a.nextAt, b.nextAt) : 0))[0];
  for (let a = due(); a; a = due()) {
    const payment = billOne(a, a.nextAt ?? now);
    if (payment) made.push(payment);
  }
  return made;
}
