import { z } from 'zod';
import { pool } from '@/store/db';
import { findActiveAccount } from '@/store/gateways';
import { findJoining, releaseJoining } from '@/store/joinings';
import { findMember, findMemberByEmail } from '@/store/members';
import { spendPoint, type Limit } from '@/store/rate-limits';
import { findOffer, findTier } from '@/store/tiers';
import type { Actor } from './actor';
import { beginJoining, HAS_ACCOUNT, type Joiner, type JoinPlan } from './begin-joining';
import { hashPassword, MAX_PASSWORD, MIN_PASSWORD, passwordMatches } from './passwords';
import { payJoining } from './pay-joining';
import { done, problemsOf, refused, refusedField, type Result } from './result';
import { waitWords } from './sign-in';
import { currentSite } from './site';

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

  const begun = await beginJoining(plan.value, person.value, input);
  if (!begun.ok) return begun;
  if (begun.value === 'busy') return waitForOther(input);
  if (begun.value === 'done') return finished(input, person.value);
  const outcome = await payJoining(actor, plan.value, begun.value, input);
  if (!outcome.ok) await releaseJoining(pool(), input.joiningId);
  return outcome.ok ? finished(input, person.value) : outcome;
}

async function planFor(input: Input): Promise<Result<JoinPlan>> {
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

async function identify(actor: Actor, input: Input): Promise<Result<Joiner>> {
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
  return refusedField('email', HAS_ACCOUNT);
}

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
  person: Joiner,
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
