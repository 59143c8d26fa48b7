import type { Words } from '@/words/speak';

export type Frame = { url: string; origin: string; gateway: string };
export type Way = {
  accountId: string;
  label: string;
  gateway: string;
  nature: 'card' | 'wallet' | 'transfer';
  frame: Frame | null;
};
/** What a form that pays says of one payment method. */
export type WayWords = {
  hint: string;
  button: string;
  frame: { title: string; hint: string; silent: string };
};
/** What a form that pays says; made on the server, so that no catalogue is sent to the browser. */
export type PayWords = Record<'method' | 'card' | 'anotherCard' | 'busyCard' | 'busy' | 'lost', string> & {
  byWay: Record<string, WayWords>;
};

/** @param button what is pressed where the site itself charges; `isDue`: money is due now */
export function payWords(t: Words, ways: Way[], button: string, isDue = true): PayWords {
  return {
    method: t('pay.method'),
    card: t('pay.card'),
    anotherCard: t('pay.another-card'),
    busyCard: t('pay.busy-card'),
    busy: t('form.moment'),
    lost: t('form.lost-payment'),
    byWay: Object.fromEntries(ways.map((way) => [way.accountId, wayWords(t, way, button, isDue)])),
  };
}

function wayWords(t: Words, { nature, gateway }: Way, button: string, isDue: boolean): WayWords {
  const of = { gateway };
  const frame = {
    title: t('pay.frame-title', of),
    hint: t('pay.frame-hint', of),
    silent: t('pay.frame-silent', of),
  };
  if (nature === 'wallet') return { hint: t('pay.wallet-next', of), button: t('pay.to-wallet', of), frame };
  if (nature === 'card') return { hint: '', button, frame };
  return isDue
    ? { hint: t('pay.transfer-next'), button: t('pay.to-transfer'), frame }
    : { hint: t('pay.transfer-later'), button, frame };
}
