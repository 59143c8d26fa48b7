import { z } from 'zod';
import { addLength, isBefore, localDate } from '@/core/calendar';
import { fieldsOfTier, readAnswers, type JoinAnswer, type JoinField } from '@/core/tiers/join-fields';
import { joiningState } from '@/core/tiers/joining';
import { findQuote } from '@/store/credits';
import { pool } from '@/store/db';
import { listJoinFields } from '@/store/join-fields';
import { findJoiningCode } from '@/store/joining-codes';
import { findJoining, releaseJoining } from '@/store/joinings';
import { findMember, findMemberByEmail } from '@/store/members';
import { findOffer } from '@/store/offers';
import { spendPoint, type Limit } from '@/store/rate-limits';
import { findSubscription } from '@/store/subscriptions';
import { findTier } from '@/store/tiers';
import type { Actor } from './actor';
import { beginJoining, HAS_ACCOUNT, type Joined, type Joiner, type JoinPlan } from './begin-joining';
import { siteNow } from './clock';
import { askForProof, needsProof } from './confirm-joining';
import { guardForm, guardSchema } from './guard-form';
import { hashPassword, MAX_PASSWORD, MIN_PASSWORD, passwordMatches } from './passwords';
import { payJoining } from './pay-joining';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { waitWords } from './sign-in';
import { currentSite, inMode, joiningMode } from './site';
import { priceOffer } from './terms';
import { sayHowToTransfer } from './transfer-details';
import { waysToPay } from './ways-to-pay';

const PER_CALLER: Limit = { name: 'join:caller', points: 60, seconds: 15 * 60 };
const PER_ADDRESS: Limit = { name: 'join:address', points: 20, seconds: 15 * 60 };

export const joinInputSchema = guardSchema.extend({
  /** Made when the form was shown: however often the form is sent, it is one joining. */
  joiningId: z.uuid(),
  offerId: z.string().min(1),
  /** The version of the offer whose figures the person saw. */
  versionId: z.string().min(1),
  /** What a switch was said to cost, where this is one. */
  quoteId: z.string().max(60).default(''),
  name: z.string().trim().max(120, 'A name has at most 120 characters.').default(''),
  email: z.string().trim().toLowerCase().max(254).default(''),
  password: z.string().max(MAX_PASSWORD, 'This password is too long.').default(''),
  answers: z.record(z.string(), z.string().max(2_000)).default({}),
  code: z.string().trim().max(60).default(''),
  cardToken: z.string().max(200).default(''),
  /** Whether to charge the card of the subscription that this takes the place of. */
  keepCard: z.boolean().default(false),
  /** How it is paid, where there is a choice; by default the first way. */
  accountId: z.string().max(60).default(''),
  returnTo: z.string().max(500).default('/'),
  /** Where the payer is, and the tax on top that the page showed for there. */
  country: z
    .string()
    .regex(/^([A-Z]{2})?$/, 'Choose a country.')
    .default(''),
  addedTax: z.coerce.number().int().default(0),
  /** 'test': by staff of a live site, with a test card. */
  mode: z.enum(['', 'test']).default(''),
});
export type JoinInput = z.infer<typeof joinInputSchema>;

const newPersonSchema = z.object({
  email: z.email('Type an e-mail address, like ines@moor.example.'),
  password: z.string().min(MIN_PASSWORD, `A password has at least ${MIN_PASSWORD} characters.`),
});

/**
 * Joins a person to a tier by an offer, or switches them over to it. The member's account, the subscription and what
 * it holds come into being together with the recorded payment, or not at all. Sent twice, it answers twice and
 * charges once.
 */
export async function joinTier(actor: Actor, raw: unknown, caller: string): Promise<Result<Joined>> {
  const parsed = joinInputSchema.safeParse(raw);
  if (!parsed.success) return refused(problemsOf(parsed.error));
  const input = parsed.data;
  const wait = Math.max(
    await spendPoint(PER_CALLER, caller),
    await spendPoint(PER_ADDRESS, input.email || caller),
  );
  if (wait > 0)
    return refusedField('', `Too many tries. Wait ${waitWords(wait)}, then try again; what you typed stays.`);
  // Whoever has signed in has shown already that they are a person.
  const human = actor.memberId ? done(null) : guardForm(input);
  if (!human.ok) return human;

  const plan = await planFor(actor, input);
  if (!plan.ok) return plan;
  const fields = fieldsOfTier(await listJoinFields(pool()), plan.value.tier.id);
  const [person, answers] = [await identify(actor, input, fields), answersOf(fields, input, plan.value)];
  if (!person.ok || !answers.ok)
    return refused({ ...(person.ok ? {} : person.problems), ...(answers.ok ? {} : answers.problems) });

  const begun = await beginJoining(plan.value, person.value, answers.value, input);
  if (!begun.ok) return begun;
  if (begun.value === 'busy') return waitForOther(input);
  if (begun.value === 'done') return finished(input, person.value);
  if (needsProof(plan.value, person.value)) return askForProof(plan.value, begun.value.joining);
  const outcome = await payJoining(actor, plan.value, begun.value, input);
  if (!outcome.ok) {
    await releaseJoining(pool(), input.joiningId, Object.values(outcome.problems)[0] ?? '');
    return outcome;
  }
  if (outcome.value.state === 'done') return finished(input, person.value);
  await releaseJoining(pool(), input.joiningId, '');
  if (outcome.value.state === 'transfer') await sayHowToTransfer(plan.value, begun.value.joining);
  return done(outcome.value);
}

/** What is joined and how it is paid, or why it cannot be. `actor` is the person who joins. */
export async function planFor(actor: Actor, input: JoinInput): Promise<Result<JoinPlan>> {
  const own = await currentSite();
  const site = inMode(own, joiningMode(own, actor, input.mode));
  const now = siteNow(site);
  const listed = await findOffer(pool(), input.offerId);
  const tier = listed && (await findTier(pool(), listed.tierId));
  if (!listed?.onSale || !tier || tier.retiredAt) {
    return refusedField(
      '',
      'This offer is not on sale any more. Go back to the join page and choose another.',
    );
  }
  const { offer, country, addedTax } = priceOffer(site, listed, input.country);
  if (offer.versionId !== input.versionId || addedTax !== input.addedTax) {
    return refusedField(
      '',
      'The price has changed since this page was opened. Load the page again to see it; nothing was charged.',
    );
  }
  // How many places are left is counted later, under the lock.
  const { state } = joiningState({ ...tier, isRetired: false }, 0, localDate(now, site.zone));
  if (state === 'closed') return refusedField('', `Joining ${tier.name} is closed. Nothing was charged.`);
  if (state === 'not-yet' || state === 'over')
    return refusedField('', `${tier.name} is not on sale today. Nothing was charged.`);
  const code = input.code ? await findJoiningCode(pool(), tier.id, input.code) : undefined;
  if (state === 'by-code') {
    if (!input.code)
      return refusedField('code', `Joining ${tier.name} needs a code. Type the one you were given.`);
    const isOver = code?.lastDay && localDate(now, site.zone) > code.lastDay;
    if (!code || isOver || (code.mostUses !== null && code.uses >= code.mostUses))
      return refusedField(
        'code',
        'This code does not admit to joining, or not any more. Check it, or ask for another.',
      );
  }
  const replaces = await replacedBy(actor, input, offer.versionId);
  if (!replaces.ok) return replaces;
  const ways = offer.isPaid ? await waysToPay(site, offer) : [];
  const account = input.accountId ? ways.find(({ id }) => id === input.accountId) : ways[0];
  if (offer.isPaid && !account)
    return refusedField(
      '',
      ways.length > 0
        ? 'This way to pay is not open any more. Choose another; nothing was charged.'
        : 'This site cannot take payments yet. Nothing was charged; try again later.',
    );
  return done({ site, offer, country, addedTax, tier, account, code: code ?? null, ...replaces.value });
}

const VOID =
  'What this switch costs has changed since the page was opened. Load it again to see it; nothing was charged.';

/** The subscription that is switched away from, with the quote that was shown for it. */
async function replacedBy(
  actor: Actor,
  input: JoinInput,
  versionId: string,
): Promise<Result<Pick<JoinPlan, 'quote' | 'replaces'>>> {
  if (!input.quoteId) return done({ quote: null, replaces: null });
  const quote = z.uuid().safeParse(input.quoteId).success
    ? await findQuote(pool(), input.quoteId)
    : undefined;
  if (!quote || quote.memberId !== actor.memberId || quote.offerVersionId !== versionId)
    return refusedField('', VOID);
  const site = await currentSite();
  const until = addLength(quote.at, { n: 1, unit: 'hour' }, site.zone);
  const replaces = await findSubscription(pool(), quote.subscriptionId);
  // A switch that comes later charges nothing now: it is asked for elsewhere.
  if (isBefore(quote.at, quote.startsAt)) return refusedField('', VOID);
  const isOwn = replaces?.events === quote.events && replaces.state !== 'ended';
  // A second press of the button finds the switch made: the joining itself says so.
  const isDone = (await findJoining(pool(), input.joiningId))?.state === 'done';
  if (!replaces || (!isDone && (!isOwn || isBefore(until, siteNow(site, quote.mode)))))
    return refusedField('', VOID);
  return done({ quote, replaces });
}

function answersOf(fields: JoinField[], input: JoinInput, plan: JoinPlan): Result<JoinAnswer[]> {
  // Whoever switches has answered before.
  if (plan.replaces) return done([]);
  const read = readAnswers(fields, input.answers);
  if (read.ok) return done(read.answers);
  return refused(
    Object.fromEntries(Object.entries(read.problems).map(([id, problem]) => [`answers.${id}`, problem])),
  );
}

async function identify(actor: Actor, input: JoinInput, fields: JoinField[]): Promise<Result<Joiner>> {
  if (actor.memberId) {
    const member = await findMember(pool(), actor.memberId);
    if (member) return done({ member, email: member.email, name: member.name, passwordHash: null });
  }
  const nameField = fields.find((field) => field.kind === 'name');
  const name = nameField ? input.name : '';
  const typed = newPersonSchema.safeParse(input);
  const problems = {
    ...(nameField?.isRequired && !name ? { name: 'Type your name.' } : {}),
    ...(typed.success ? {} : problemsOf(typed.error)),
  };
  if (!typed.success || Object.keys(problems).length > 0) return refused(problems);
  const existing = await findMemberByEmail(pool(), input.email);
  if (!existing)
    return done({
      member: undefined,
      name,
      email: typed.data.email,
      passwordHash: await hashPassword(input.password),
    });
  if (await passwordMatches(existing.passwordHash, input.password)) {
    return done({ member: existing, email: existing.email, name: existing.name, passwordHash: null });
  }
  return refusedField('email', HAS_ACCOUNT);
}

/** A second press of the button waits for what the first one comes to. */
async function waitForOther(input: JoinInput): Promise<Result<Joined>> {
  for (let tries = 0; tries < 40; tries++) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    const joining = await findJoining(pool(), input.joiningId);
    if (joining?.state === 'done' && joining.memberId)
      return done({ state: 'done', memberId: joining.memberId });
    if (joining?.state === 'waiting') return done({ state: 'proof', email: joining.email });
  }
  return refusedField('', 'The payment is still under way. Wait a minute, then load your account page.');
}

async function finished(input: JoinInput, person: Joiner): Promise<Result<Joined>> {
  const joining = await findJoining(pool(), input.joiningId);
  if (joining?.state !== 'done' || !joining.memberId || joining.email !== person.email) {
    return refusedField(
      '',
      'The joining could not be finished. Load your account page to see where it stands.',
    );
  }
  return done({ state: 'done', memberId: joining.memberId });
}
