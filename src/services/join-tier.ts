import { fieldsOfTier, readAnswers, type JoinAnswer, type JoinField } from '@/core/tiers/join-fields';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, missing, refused, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { memberUse } from '@/platform/use';
import { listJoinFields } from '@/store/join-fields';
import { findJoining, releaseJoining } from '@/store/joinings';
import { findMember, setName, type Member } from '@/store/members';
import { beginJoining, type Joined, type JoinPlan } from './lib/begin-joining';
import { payJoining } from './lib/pay-joining';
import { joinInputSchema, planFor, type JoinInput } from './lib/plan-joining';
import { sayHowToTransfer } from './lib/transfer-details';
import { waitWords } from './lib/wait-words';

const PER_MEMBER: Limit = { name: 'join:member', points: 30, seconds: 15 * 60 };

/**
 * Joins a member to a tier by an offer, or switches them over to it. The subscription and what it holds come into being
 * together with the recorded payment, or not at all. Sent twice, it answers twice and charges once.
 */
export const joinTier = memberUse(
  'join-tier',
  joinInputSchema,
  async (actor, input): Promise<Result<Joined>> => {
    const wait = await spendPoint(PER_MEMBER, actor.memberId);
    if (wait > 0)
      return refusedField(
        '',
        `Too many tries. Wait ${waitWords(wait)}, then try again; what you typed stays.`,
      );
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    const plan = await planFor(actor, input);
    if (!plan.ok) return plan;
    const fields = fieldsOfTier(await listJoinFields(pool()), plan.value.tier.id);
    const [name, answers] = [nameOf(fields, input, member), answersOf(fields, input, plan.value)];
    if (!name.ok || !answers.ok)
      return refused({ ...(name.ok ? {} : name.problems), ...(answers.ok ? {} : answers.problems) });
    const named = name.value === member.name ? member : await keepName(actor, member, name.value);

    const begun = await beginJoining(actor, plan.value, named, answers.value, input);
    if (!begun.ok) return begun;
    if (begun.value === 'busy') return waitForOther(input);
    if (begun.value === 'done') return finished(input);
    const outcome = await payJoining(actor, plan.value, begun.value, input);
    if (!outcome.ok) {
      await releaseJoining(pool(), input.joiningId, Object.values(outcome.problems)[0] ?? '');
      return outcome;
    }
    if (outcome.value.state === 'done') return finished(input);
    await releaseJoining(pool(), input.joiningId, '');
    if (outcome.value.state === 'transfer') await sayHowToTransfer(plan.value, begun.value.joining);
    return done(outcome.value);
  },
);

/** The member’s name, asked where it is not known yet. */
function nameOf(fields: JoinField[], input: JoinInput, member: Member): Result<string> {
  const field = fields.find((each) => each.kind === 'name');
  if (!field || member.name !== '') return done(member.name);
  return field.isRequired && input.name === '' ? refusedField('name', 'Type your name.') : done(input.name);
}

async function keepName(
  actor: { memberId: string } & Parameters<typeof record>[1],
  member: Member,
  name: string,
): Promise<Member> {
  const at = siteNow(await currentSite());
  await transaction(async (db) => {
    await setName(db, member.id, name);
    await record(db, actor, at, 'details changed', `member:${member.id}`);
  });
  return { ...member, name };
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

/** A second press of the button waits for what the first one comes to. */
async function waitForOther(input: JoinInput): Promise<Result<Joined>> {
  for (let tries = 0; tries < 40; tries++) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    if ((await findJoining(pool(), input.joiningId))?.state === 'done') return done({ state: 'done' });
  }
  return refusedField('', 'The payment is still in progress. Wait a minute, then look in your account.');
}

async function finished(input: JoinInput): Promise<Result<Joined>> {
  return (await findJoining(pool(), input.joiningId))?.state === 'done'
    ? done({ state: 'done' })
    : refusedField('', 'We could not finish this. Look in your account to see whether you have joined.');
}
