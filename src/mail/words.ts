import { formatDate, type Instant } from '@/core/instants';
import { formatMoney } from '@/core/money';
import type { MailFrame, NextChargeTold } from './define';

/** Words that several mails share. */
export const ACCOUNT = { label: 'Your account', path: '/account' };

export const dayWords = (at: Instant | null, { zone }: Pick<MailFrame, 'zone'>): string =>
  at ? formatDate(at, zone) : 'later';

export const nextWords = ({ at, amount, credit, currency }: NextChargeTold, frame: MailFrame): string =>
  amount === 0 && credit > 0
    ? `Your credit pays the next charge, ${formatMoney(credit, currency)} on ${dayWords(at, frame)}.`
    : `The next charge is ${formatMoney(amount, currency)} on ${dayWords(at, frame)}${credit > 0 ? `; ${formatMoney(credit, currency)} more is taken from your credit` : ''}.`;

/** "2028-11" as "November 2028". */
export function monthWords(month: string): string {
  const [year = 0, number = 1] = month.split('-').map(Number);
  return new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
    Date.UTC(year, number - 1),
  );
}

/** What a charge takes from whom: money, credit, or both. */
export function takenWords({
  amount,
  credit,
  currency,
  methodLabel,
}: NextChargeTold & { methodLabel: string | null }): string {
  const fromCredit = `${formatMoney(credit, currency)} is taken from your credit`;
  if (amount === 0 && credit > 0) return fromCredit;
  const charged = `${formatMoney(amount, currency)} is charged${methodLabel ? ` to the ${methodLabel}` : ''}`;
  return credit > 0 ? `${charged} and ${fromCredit}` : charged;
}
