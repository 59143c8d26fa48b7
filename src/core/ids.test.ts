import { expect, it } from 'vitest';
import type { Instant, LocalDate } from './instants';
import type { MemberId, SubscriptionId } from './ids';

// What must not compile: the type check of the suite finds an expectation that no longer holds.
it('ids of two kinds, and dates and instants, are not exchanged', () => {
  const member: MemberId = 'm';
  // @ts-expect-error a member is no subscription
  const subscription: SubscriptionId = member;
  // @ts-expect-error a date is no instant
  const instant: Instant = '2027-01-31';
  // @ts-expect-error nor is text that nobody has read
  const read: Instant = String(member);
  // @ts-expect-error an instant is no date
  const date: LocalDate = '2027-01-31T10:00:00Z';
  expect([subscription, instant, read, date]).toHaveLength(4);
});
