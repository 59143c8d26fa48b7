import { fieldsOfTier, readAnswers, type JoinAnswer, type JoinField } from '@/core/tiers/join-fields';
import { setChoice } from '@/mail/store/mail-choices';
import type { SignedIn } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, missing, refused, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { memberUse } from '@/platform/use';
import { waitMinutes } from '@/people/services/lib/wait-minutes';
import { listJoinFields } from '@/tiers/store/join-fields';
import { findMember, setName, type Member } from '@/people/store/members';
import { checkoutInputSchema, planFor, type CheckoutInput } from './lib/plan';
import { submitFor, type Submitted } from './lib/submit';

const PER_MEMBER: Limit = { name: 'join:member', points: 30, seconds: 15 * 60 };

/** Joins a member to a tier by an offer, or switches them over to it. Sent twice, it answers twice and charges once. */
export const submitCheckout = memberUse(
  'submit-checkout',
  checkoutInputSchema,
  async (actor, input): Promise<Result<Submitted>> => {
    const wait = await spendPoint(PER_MEMBER, actor.memberId);
    if (wait > 0) return refusedField('', 'checkout.too-many', { minutes: waitMinutes(wait) });
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    const plan = await planFor(actor, input);
    if (!plan.ok) return plan;
    const fields = fieldsOfTier(await listJoinFields(pool()), plan.value.tier.id);
    const [name, answers] = [nameOf(fields, input, member), answersOf(fields, input)];
    if (!name.ok || !answers.ok)
      return refused({ ...(name.ok ? {} : name.problems), ...(answers.ok ? {} : answers.problems) });
    const named = name.value === member.name ? member : await keepName(actor, member, name.value);
    const submitted = await submitFor(actor, plan.value, named, answers.value, input);
    if (submitted.ok && input.letters) await wantLetters(actor);
    return submitted;
  },
);

/** The member’s name, asked where it is not known yet. */
function nameOf(fields: JoinField[], input: CheckoutInput, member: Member): Result<string> {
  const field = fields.find((each) => each.kind === 'name');
  if (!field || member.name !== '') return done(member.name);
  return field.isRequired && input.name === '' ? refusedField('name', 'name.missing') : done(input.name);
}

async function keepName(actor: SignedIn, member: Member, name: string): Promise<Member> {
  const at = siteNow(await currentSite());
  await transaction(async (db) => {
    await setName(db, member.id, name);
    await record(db, actor, at, 'details changed', `member:${member.id}`);
  });
  return { ...member, name };
}

/** They ticked that they want letters, where the owner has it asked. */
async function wantLetters(actor: SignedIn): Promise<void> {
  const site = await currentSite();
  if (!site.asksLetters) return;
  const choice = { topic: 'letters', isOn: true, how: 'self', at: siteNow(site) } as const;
  await transaction(async (db) => {
    if (await setChoice(db, actor.memberId, choice))
      await record(db, actor, choice.at, 'mails turned on', `member:${actor.memberId}`, {
        topic: choice.topic,
      });
  });
}

function answersOf(fields: JoinField[], input: CheckoutInput): Result<JoinAnswer[]> {
  // A switch asks nothing: its questions were answered at joining.
  if (input.quoteId) return done([]);
  const read = readAnswers(fields, input.answers);
  if (read.ok) return done(read.answers);
  return refused(
    Object.fromEntries(Object.entries(read.problems).map(([id, problem]) => [`answers.${id}`, problem])),
  );
}
