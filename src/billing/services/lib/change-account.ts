import { gatewayById } from '@/billing/gateways';
import { declineProblem, type Gateway } from '@/billing/gateways/contract';
import type { Method } from '@/core/billing/book';
import type { Account } from '@/billing/store/book-rows';
import { setAccount } from '@/billing/store/subscriptions';
import { done, refusedField, type Result, refusedWith } from '@/platform/result';
import { keysOf } from './gateway-account';
import type { GatewayAccount, TransferSettings } from '@/billing/store/gateways';
import type { OpenBook } from './opened';

/** Who is asked for money, and by what: of a subscription. */
export type Payer = Pick<
  Account,
  'gatewayAccountId' | 'customerRef' | 'methodRef' | 'methodLabel' | 'methodExpires'
>;

/** How a charge through an account is collected. */
export function methodOf(account: GatewayAccount | undefined): Method | null {
  if (!account) return null;
  const { nature } = gatewayById(account.gateway);
  return nature === 'transfer'
    ? { nature, waitDays: (account.settings as Partial<TransferSettings>).daysToPay ?? 0 }
    : { nature };
}

/** Paid through an account with which nothing is kept. */
export const payerThrough = ({ id }: Pick<GatewayAccount, 'id'>): Payer => ({
  gatewayAccountId: id,
  customerRef: null,
  methodRef: null,
  methodLabel: null,
  methodExpires: null,
});

/** Has the gateway keep the card that its frame took. The answer to a refused card is a sentence, and nothing has changed. */
export async function keepCard(
  account: GatewayAccount,
  card: { token: string; email: string; idempotencyKey: string },
): Promise<Result<Payer>> {
  if (!card.token) return refusedField('card', 'card.missing');
  const gateway: Gateway = gatewayById(account.gateway);
  const saved = await gateway.saveMethod(keysOf(account), card);
  if (saved.state === 'declined') return refusedWith(declineProblem(saved.code), 'card');
  if (saved.state === 'unknown') return refusedField('card', 'card.not-saved', { reason: saved.reason });
  return done({
    gatewayAccountId: account.id,
    customerRef: saved.customerRef,
    methodRef: saved.methodRef,
    methodLabel: saved.label,
    methodExpires: saved.expires,
  });
}

/** In an open book: from now on a subscription is paid so. */
export async function setPayer(
  { db, stored }: OpenBook,
  id: string,
  payer: Payer & Partial<Pick<Account, 'taxCountry'>>,
): Promise<void> {
  const known = stored.accounts.get(id);
  if (!known) throw new Error(`the book has no subscription ${id}`);
  const account = { ...known, ...payer };
  await setAccount(db, id, account);
  stored.accounts.set(id, account);
}
