import { config } from '@/platform/config';
import { CHARGED } from '@/core/billing/states';
import { billingAhead } from '@/core/billing/upcoming';
import { askedOf } from '@/core/billing/work';
import type { Charge } from '@/core/billing/book';
import { gatewayById } from '@/billing/gateways';
import { type StoredBook } from '@/billing/store/book';
import { versionOf } from '@/billing/store/book-from-rows';
import type { StoredSubscription } from '@/billing/store/subscriptions';
import { GATEWAY, type Actor } from '@/platform/actor';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import {
  endAgreementsOf,
  findAgreement,
  insertAgreement,
  setAgreementState,
  withdrawAsked,
  type StoredAgreement,
} from '@/billing/store/agreements';
import type { GatewayAccount } from '@/billing/store/gateways';
import { findOfferVersion } from '@/tiers/store/offers';
import { beginAgreement } from './begin-agreement';
import { setPayer, type Payer } from './change-account';
import { doAsks } from './in-book';
import { happen, openBook } from './open-book';

/** The outcome of an approval: it holds, still waits for something, or arrived too late. */
export type Approved = 'done' | 'waiting' | 'refused';

/** How a subscription is paid that a wallet bills. */
export const walletPayer = (account: GatewayAccount, agreement: StoredAgreement): Payer => ({
  gatewayAccountId: account.id,
  customerRef: account.siteKey,
  methodRef: agreement.ref ?? '',
  methodLabel: gatewayById(account.gateway).name,
  methodExpires: null,
});

/** The attempt of a subscription that is under way. */
function asked({ book }: StoredBook, id: string) {
  const one = book.charges.find((charge: Charge) => charge.subscription === id && askedOf(charge));
  return one && askedOf(one);
}

/**
 * Asks the payer of a subscription that runs to approve, on a wallet's page, what is billed from its next period on: because
 * they choose the wallet, or because what it bills will change. Until they do, everything stays as it is.
 */
export async function askToApprove(
  actor: Actor,
  found: StoredSubscription,
  account: GatewayAccount,
): Promise<Result<{ approveUrl: string }>> {
  const site = await currentSite();
  const written = await transaction(async (db) => {
    const { stored, at } = await openBook(db, site, actor, found);
    const s = stored.book.subscriptions.find(({ id }) => id === found.id);
    if (!s || !CHARGED.has(s.state) || s.pauses || s.disputes.length > 0)
      return refusedField('', 'wallet.not-running');
    // Which period it bills first depends on the outcome of a charge under way.
    const open = asked(stored, s.id);
    const isOurs = stored.accounts.get(s.id)?.gatewayAccountId === account.id;
    if (open && open.until === null && !isOurs) return refusedField('', 'refusal.under-way');
    const ahead = billingAhead(s, { zone: site.zone, offers: stored.offers }, at);
    if (!ahead) return refusedField('', 'wallet.nothing-to-approve');
    await withdrawAsked(db, s.id);
    const offerVersionId = versionOf(ahead.offer).versionId;
    const agreement = await insertAgreement(db, {
      subscriptionId: s.id,
      mode: stored.mode,
      gatewayAccountId: account.id,
      offerVersionId,
      after: s.place.last,
      at,
    });
    return done({ ahead, agreement, offerVersionId });
  });
  if (!written.ok) return written;
  const { ahead, agreement, offerVersionId } = written.value;
  const offer = await findOfferVersion(pool(), offerVersionId);
  const { offer: _, ...billing } = ahead;
  return beginAgreement(site, account, agreement, {
    ...billing,
    currency: offer?.definition.currency ?? '',
    returnUrl: `${config().SITE_URL}/account/approved/${agreement.id}`,
    note: `${site.name}: ${offer?.name ?? ''}`,
  });
}

/**
 * The payer has approved for a subscription that runs: from now on the wallet bills it, and what paid for it before does so
 * no more. What was owed comes with the wallet's first bill.
 */
export async function takeUpApproval(
  site: Site,
  account: GatewayAccount,
  { id: agreementId }: Pick<StoredAgreement, 'id'>,
  of: StoredSubscription,
): Promise<Approved> {
  const taken = await transaction(async (db) => {
    const open = await openBook(db, site, GATEWAY, of);
    const { stored, at } = open;
    const agreement = await findAgreement(db, agreementId);
    if (agreement?.state !== 'asked') return { state: 'done' as const };
    const s = stored.book.subscriptions.find(({ id }) => id === agreement.subscriptionId);
    const last = s?.place.last;
    // What has changed since it was asked for makes it void: it would bill something else.
    const isVoid = !s || !CHARGED.has(s.state) || s.disputes.length > 0 || s.pauses;
    const isPaidSince =
      agreement.afterStep !== (last?.step ?? null) || agreement.afterN !== (last?.n ?? null);
    const billed = s && versionOf(s.switchesTo ?? s.movesTo ?? s.offer).versionId;
    if (isVoid || isPaidSince || agreement.offerVersionId !== billed) {
      await setAgreementState(db, agreementId, 'ending', at);
      return { state: 'refused' as const };
    }
    const attempt = asked(stored, s.id);
    const isOurs = stored.accounts.get(s.id)?.gatewayAccountId === account.id;
    if (attempt && attempt.until === null && !isOurs) return { state: 'waiting' as const };
    await endAgreementsOf(db, s.id, { id: agreementId });
    await setAgreementState(db, agreementId, 'running', at);
    await setPayer(open, s.id, walletPayer(account, agreement));
    await record(db, GATEWAY, at, 'payment method changed', `subscription:${s.id}`, {
      through: account.label,
    });
    const isAsked = attempt !== undefined && attempt.until === null;
    const happened = isAsked
      ? null
      : await happen(open, { do: 'method', subscription: s.id, method: { nature: 'wallet' } });
    if (happened && !happened.ok) throw new Error(`approval ${agreementId}: ${happened.why}`);
    return { state: 'done' as const, stored: open.stored, asks: happened?.asks ?? [] };
  });
  if (taken.state === 'done' && taken.stored) await doAsks(GATEWAY, site, taken.stored, taken.asks);
  return taken.state;
}
