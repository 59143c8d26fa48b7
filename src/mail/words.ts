import type { Instant } from '@/core/instants';
import { methodWords } from '@/words/methods';
import type { Words } from '@/words/speak';
import type { NextChargeTold } from './define';

/** Words that several mails share. */
export const accountLink = (t: Words) => ({ label: t('mails.account'), path: '/account' });
export const joinLink = (t: Words) => ({ label: t('mails.join-again'), path: '/join' });

export const dayWords = (at: Instant | null, t: Words): string => (at ? t.date(at) : t('mails.later'));

export function nextWords({ at, amount, credit, currency }: NextChargeTold, t: Words): string {
  const told = { amount: t.money(amount, currency), credit: t.money(credit, currency), date: t.date(at) };
  if (credit === 0) return t('mails.next', told);
  return amount === 0 ? t('mails.next-by-credit', told) : t('mails.next-and-credit', told);
}

/** A payment method within a sentence; "none" where nothing is known of it. */
export const methodIn = (label: string | null, t: Words): string => (label ? methodWords(label, t) : 'none');

type Taken = NextChargeTold & { methodLabel: string | null };
/** What a charge takes from whom: money, credit, or both. */
export function takenWords({ amount, credit, currency, methodLabel }: Taken, t: Words): string {
  const told = {
    amount: t.money(amount, currency),
    credit: t.money(credit, currency),
    method: methodIn(methodLabel, t),
  };
  if (credit === 0) return t('mails.taken', told);
  return amount === 0 ? t('mails.taken-credit', told) : t('mails.taken-both', told);
}
