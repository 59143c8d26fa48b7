import { z } from 'zod';
import { config } from '@/config';
import { nextPeriod, type Period } from '@/core/offers/schedule';
import { gatewayById } from '@/gateways';
import { declineSentence } from '@/gateways/contract';
import { lock, pool, transaction, type Transaction } from '@/store/db';
import { findActiveAccount, type GatewayAccount } from '@/store/gateways';
import {
  claimJoining,
  countMethodTry,
  findJoining,
  insertJoining,
  isBeingPaid,
  releaseJoining,
  type Joining,
} from '@/store/joinings';
import { findMember, findMemberByEmail, type Member } from '@/store/members';
import { countAttempts, findOpenPayment } from '@/store/payments';
import { spendPoint, type Limit } from '@/store/rate-limits';
import type { Site } from '@/store/site';
import {
  findRunning,
  hasHadTrial,
  insertPending,
  lockSubscription,
  saveLife,
  setMethod,
} from '@/store/subscriptions';
import { findOffer, findTier, type StoredOffer, type Tier } from '@/store/tiers';
import type { Actor } from './actor';
import { siteNow } from './clock';
import { collect, settleOpenIntent, writeIntent } from './collect-payment';
import { completeJoining } from './complete-joining';
import { keysOf } from './connect-gateway';
import { hashPassword, MAX_PASSWORD, MIN_PASSWORD, passwordMatches } from './passwords';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { waitWords } from './sign-in';
import { safeReturn } from './safe-return';
import { currentSite } from './site';
import { termsOf } from './terms';

const PER_CALLER: Limit = { name: 'join:caller', points: 60, seconds: 15 * 60 };

const inputSchema = z.object({
  /** Made when the form was shown: however often the form is sent, it is one joining. */
  joiningId: z.uuid(),
  offerId: z.string().min(1),
  /** The version of the offer whose figures the person saw. */
  versionId: z.string().min(1),
  name: z.string().trim().max(120),
  email: z.string().trim().toLowerCase().max(254),
  password: z.string().max(MAX_PASSWORD, 'This password is too long.'),
  cardToken: z.string().max(200).default(''),
  returnTo: z.string().max(500).default('/'),
});
type Input = z.infer<typeof inputSchema>;

const newPersonSchema = z.object({
  name: z.string().min(1, 'Type your name.'),
  email: z.email('Type an e-mail address, like ines@moor.example.'),
  password: z.string().min(MIN_PASSWORD, `A password has at least ${MIN_PASSWORD} characters.`),
});

type Plan = {
  site: Site;
  offer: StoredOffer;
  tier: Tier;
  track: string;
  account: GatewayAccount | undefined;
};
type Person = { member: Member | undefined; email: string; name: string; passwordHash: string | null };

/**
 * Joins a person to a tier by an offer. The member's account, the subscription and what it holds come into being
 * together with the recorded payment, or not at all. Sent twice, it answers twice and charges once.
 */
export async function joinTier(
  actor: Actor,
  raw: unknown,
  caller: string,
): Promise<Result<{ memberId: string; returnTo: string }>> {
  const parsed = inputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const input = parsed.data;
  const wait = await spendPoint(PER_CALLER, caller);
  if (wait > 0)
    return refusedField('', `Too many tries. Wait ${waitWords(wait)}, then try again; what you typed stays.`);

  const plan = await planFor(input);
  if (!plan.ok) return plan;
  const person = await identify(actor, input);
  if (!person.ok) return person;

  const begun = await begin(plan.value, person.value, input);
  if (!begun.ok) return begun;
  if (begun.value === 'busy') return waitForOther(input);
  if (begun.value === 'done') return finished(input, person.value);
  const outcome = await pay(actor, plan.value, begun.value, input);
  if (!outcome.ok) await releaseJoining(pool(), input.joiningId);
  return outcome.ok ? finished(input, person.value) : outcome;
}

async function planFor(input: Input): Promise<Result<Plan>> {
  const site = await currentSite();
  const offer = await findOffer(pool(), input.offerId);
  const tier = offer && (await findTier(pool(), offer.tierId));
  if (!offer?.onSale || !tier)
    return refusedField(
      '',
      'This offer is not on sale any more. Go back to the join page and choose another.',
    );
  if (offer.versionId !== input.versionId) {
    return refusedField(
      '',
      'The price has changed since this page was opened. Load the page again to see it; nothing was charged.',
    );
  }
  const account = offer.isPaid ? await findActiveAccount(pool(), site.mode) : undefined;
  if (offer.isPaid && !account)
    return refusedField('', 'This site cannot take payments yet. Nothing was charged; try again later.');
  return done({ site, offer, tier, track: tier.ladderId ?? tier.id, account });
}

async function identify(actor: Actor, input: Input): Promise<Result<Person>> {
  if (actor.memberId) {
    const member = await findMember(pool(), actor.memberId);
    if (member) return done({ member, email: member.email, name: member.name, passwordHash: null });
  }
  const typed = newPersonSchema.safeParse(input);
  if (!typed.success) return refused(problemsOf(typed.error));
  const existing = await findMemberByEmail(pool(), input.email);
  if (!existing)
    return done({ member: undefined, ...typed.data, passwordHash: await hashPassword(input.password) });
  if (await passwordMatches(existing.passwordHash, input.password)) {
    return done({ member: existing, email: existing.email, name: existing.name, passwordHash: null });
  }
  return refusedField(
    'email',
    'This address has an account already. Sign in first; you come back to this page.',
  );
}

type Begun = { joining: Joining; period: Period };

/** Takes the joining for this try, alone: one person, one track, one payment at a time. */
async function begin(plan: Plan, person: Person, input: Input): Promise<Result<Begun | 'busy' | 'done'>> {
  const { site, offer, tier, track, account } = plan;
  const at = siteNow(site);
  return transaction(async (db) => {
    await lock(db, 'join', person.email, track);
    const known = await findJoining(db, input.joiningId);
    if (known?.state === 'done') return done('done');
    if (person.member && (await findRunning(db, person.member.id, site.mode, track))) {
      return refusedField(
        '',
        `You hold ${tier.name} or another tier of its ladder already. Your account shows it.`,
      );
    }
    if (await isBeingPaid(db, person.email, site.mode, track, input.joiningId)) {
      return refusedField('', 'A payment of yours is under way in another window. Let that one finish.');
    }
    const skipTrial = person.member ? await hasHadTrial(db, person.member.id, site.mode, track) : false;
    const period = nextPeriod(offer.definition, at, site.zone, skipTrial, null);
    if (!period)
      return refusedField(
        '',
        'Nothing of this offer is left: its dates have passed. Choose another on the join page.',
      );
    const typed = {
      email: person.email,
      name: person.name,
      passwordHash: person.passwordHash,
      memberId: person.member?.id ?? null,
    };
    if (known) return resume(db, known, plan, typed, skipTrial);
    const subscription = await insertPending(db, {
      memberId: person.member?.id ?? null,
      mode: site.mode,
      track,
      offerVersionId: offer.versionId,
      startedAt: at,
      skipTrial,
      gatewayAccountId: account?.id ?? null,
    });
    const joining = await insertJoining(
      db,
      {
        id: input.joiningId,
        subscriptionId: subscription.id,
        track,
        mode: site.mode,
        returnTo: safeReturn(input.returnTo),
        ...typed,
      },
      config().LEASE_SECONDS,
    );
    return done({ joining, period });
  });
}

async function resume(
  db: Transaction,
  known: Joining,
  { site, offer }: Plan,
  typed: Pick<Joining, 'email' | 'name' | 'passwordHash' | 'memberId'>,
  skipTrial: boolean,
): Promise<Result<Begun | 'busy'>> {
  const joining = await claimJoining(db, known.id, typed, config().LEASE_SECONDS);
  if (!joining) return done('busy');
  const subscription = await lockSubscription(db, joining.subscriptionId);
  if (!subscription || subscription.offerVersionId !== offer.versionId) {
    return refusedField('', 'This page belongs to another offer. Load it again; nothing was charged.');
  }
  // A payment still open keeps its instant: the answer to it belongs to what was asked then.
  const startedAt = (await findOpenPayment(db, subscription.id)) ? subscription.startedAt : siteNow(site);
  await saveLife(db, subscription.id, { ...subscription, startedAt, skipTrial });
  const period = nextPeriod(offer.definition, startedAt, site.zone, skipTrial, null);
  return period
    ? done({ joining, period })
    : refusedField('', 'Nothing of this offer is left: its dates have passed.');
}

async function pay(
  actor: Actor,
  plan: Plan,
  { joining, period }: Begun,
  input: Input,
): Promise<Result<null>> {
  const open = await findOpenPayment(pool(), joining.subscriptionId);
  if (open) {
    const outcome = await settleOpenIntent(actor, open);
    if (outcome.state === 'succeeded') return done(null);
    if (outcome.state === 'unknown') return refusedField('', silence(outcome.reason));
  }
  if (plan.account) {
    const saved = await saveCard(plan.account, joining, input.cardToken);
    if (!saved.ok) return saved;
  }
  if (period.amount === 0) {
    await transaction(async (db) => {
      const subscription = await lockSubscription(db, joining.subscriptionId);
      if (subscription?.state !== 'pending') return;
      await completeJoining(
        db,
        plan.site,
        actor,
        joining,
        subscription,
        await termsOf(db, plan.site, subscription.offerVersionId),
        period,
        subscription.startedAt,
      );
    });
    return done(null);
  }
  const intent = await transaction(async (db) => {
    const subscription = await lockSubscription(db, joining.subscriptionId);
    if (!subscription) throw new Error('the joining lost its subscription');
    const attempt = 1 + (await countAttempts(db, subscription.id, period.step, period.n));
    return writeIntent(
      db,
      subscription,
      period,
      attempt,
      plan.offer.definition.currency,
      subscription.startedAt,
    );
  });
  const outcome = await collect(actor, intent);
  if (outcome.state === 'declined') return refusedField('card', declineSentence(outcome.code));
  return outcome.state === 'succeeded' ? done(null) : refusedField('', silence(outcome.reason));
}

async function saveCard(account: GatewayAccount, joining: Joining, token: string): Promise<Result<null>> {
  if (!token) return refusedField('card', 'Fill in the card.');
  const tries = await countMethodTry(pool(), joining.id);
  const saved = await gatewayById(account.gateway).saveMethod(keysOf(account), {
    token,
    email: joining.email,
    idempotencyKey: `${joining.id}:method:${tries}`,
  });
  if (saved.state === 'declined') return refusedField('card', declineSentence(saved.code));
  if (saved.state === 'unknown')
    return refusedField('card', `${saved.reason}. Nothing was charged; try again in a moment.`);
  await setMethod(pool(), joining.subscriptionId, {
    customerRef: saved.customerRef,
    methodRef: saved.methodRef,
    methodLabel: saved.label,
  });
  return done(null);
}

const silence = (reason: string): string =>
  `${reason}, so we do not know yet whether the payment went through. Press the button again in a minute: you will not be charged twice.`;

/** A second press of the button waits for what the first one comes to. */
async function waitForOther(input: Input): Promise<Result<{ memberId: string; returnTo: string }>> {
  for (let tries = 0; tries < 40; tries++) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    const joining = await findJoining(pool(), input.joiningId);
    if (joining?.state === 'done' && joining.memberId)
      return done({ memberId: joining.memberId, returnTo: joining.returnTo });
  }
  return refusedField('', 'The payment is still under way. Wait a minute, then load your account page.');
}

async function finished(
  input: Input,
  person: Person,
): Promise<Result<{ memberId: string; returnTo: string }>> {
  const joining = await findJoining(pool(), input.joiningId);
  if (joining?.state !== 'done' || !joining.memberId || joining.email !== person.email) {
    return refusedField(
      '',
      'The joining could not be finished. Load your account page to see where it stands.',
    );
  }
  return done({ memberId: joining.memberId, returnTo: joining.returnTo });
}
