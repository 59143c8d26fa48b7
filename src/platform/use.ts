import type { z } from 'zod';
import type { Scope } from '@/core/api/scopes';
import type { Right } from '@/core/staff';
import { may } from '@/core/staff';
import { pool } from '@/platform/store/db';
import { spendPoint, type Limit } from '@/platform/store/rate-limits';
import { NotAllowed, type Actor, type SignedIn } from './actor';
import { breachOf } from './bounds';
import { realNow } from './clock';
import { powersOf } from './site';
import { record } from './record';
import { shareNot } from './request';
import { problemsOf, type Problem } from '@/core/problem';
import { problem, type ProblemCode } from '@/words/problems';
import { missing, refused, type Refusal, type Result } from './result';

/** Who may call a use case; for the test that lists them all. */
export type UseFacts = {
  name: string;
  of: 'public' | 'member' | 'staff' | 'system' | 'key';
  right?: Right;
  /** What it answers a member is the same for all members to whom rules say the same, unless it says otherwise itself. */
  isAlike?: true;
  /** Where one of several rights is enough. */
  rights?: readonly Right[];
  scope?: Scope;
};
/** What a route, an action or the worker calls: it looks at who calls, and at what they bring, before anything else. */
export type Use<T> = ((actor: Actor, input?: unknown) => Promise<Result<T>>) & { use: UseFacts };
type Run<A extends Actor, S extends z.ZodType, T> = (actor: A, input: z.output<S>) => Promise<Result<T>>;

/** Refusals are written to the audit, but nobody can fill it with them. */
const AUDITED: Limit = { name: 'audit:refused', points: 30, seconds: 3600 };

const BREACHES = {
  'too large': 'form.too-large',
  'too deep': 'form.nested',
  unreadable: 'form.unreadable',
} as const;

/** A session may have ended while a form was filled in: it stays there, and can be sent again. */
const SIGNED_OUT = { '': problem('use.signed-out') };

type Check = (actor: Actor) => Refusal | null | Promise<Refusal | null>;
type Owner<S extends z.ZodType> = {
  /** The member whose the named thing is; null or undefined where there is no such thing. */
  owner: (input: z.output<S>) => Promise<string | null | undefined>;
  /** With this right, staff may call it for any member. */
  staff?: Right;
};

function make<A extends Actor, S extends z.ZodType, T>(
  use: UseFacts,
  schema: S,
  run: Run<A, S, T>,
  check: Check,
  owned?: Owner<S>,
): Use<T> {
  const called = async (actor: Actor, raw?: unknown): Promise<Result<T>> => {
    if (actor.memberId !== null && !use.isAlike) shareNot();
    // Who calls comes first, so that an input tells nothing to those who may not; and nothing is parsed unmeasured.
    const against = await check(actor);
    if (against) return audited(actor, use, against);
    const breach = breachOf(raw);
    if (breach)
      return refused({ '': problem(BREACHES[breach]) }, breach === 'unreadable' ? 'invalid' : 'too-large');
    const parsed = schema.safeParse(raw);
    if (!parsed.success) return refused(problemsOf<ProblemCode>(parsed.error), 'invalid');
    if (owned) {
      const owner = await owned.owner(parsed.data);
      const isTheirs = Boolean(owner) && owner === actor.memberId;
      const isForThem = owned.staff !== undefined && may(await powersOf(actor), owned.staff);
      if (!isTheirs && !(isForThem && owner)) return audited(actor, use, missing());
    }
    try {
      return await run(actor as A, parsed.data);
    } catch (error) {
      if (error instanceof NotAllowed)
        return audited(actor, use, refused({ '': error.problem }, 'forbidden'));
      throw error;
    }
  };
  return Object.assign(called, { use });
}

/** Audits that a caller with an account or a staff role was refused. */
async function audited(actor: Actor, use: UseFacts, refusal: Refusal): Promise<Refusal> {
  if (actor.memberId === null && use.of === 'member') return refusal;
  if ((await spendPoint(AUDITED, actor.memberId ?? actor.address ?? actor.kind)) === 0)
    await record(pool(), actor, realNow(), 'refused', `use:${use.name}`, { why: refusal.code });
  return refusal;
}

/** For anyone, signed in or not. */
export const publicUse = <S extends z.ZodType, T>(name: string, schema: S, run: Run<Actor, S, T>): Use<T> =>
  make({ name, of: 'public' }, schema, run, () => null);

/**
 * For anyone as well. A page that is made for a member with these alone is kept for other members who hold the same: what is
 * for one alone says `shareNot`.
 */
export const alikeUse = <S extends z.ZodType, T>(name: string, schema: S, run: Run<Actor, S, T>): Use<T> =>
  make({ name, of: 'public', isAlike: true }, schema, run, () => null);

/** For a signed-in member; with `owned`, only for the member whose the thing is, and for staff who have a right. */
export const memberUse = <S extends z.ZodType, T>(
  name: string,
  schema: S,
  run: Run<SignedIn, S, T>,
  owned?: Owner<S>,
): Use<T> =>
  make(
    { name, of: 'member', ...(owned?.staff && { right: owned.staff }) },
    schema,
    run,
    ({ memberId }) => (memberId === null ? refused(SIGNED_OUT, 'sign-in') : null),
    owned,
  );

/** For staff with a right, or with one of several. */
export const staffUse =
  (...rights: [Right, ...Right[]]) =>
  <S extends z.ZodType, T>(name: string, schema: S, run: Run<Actor, S, T>): Use<T> =>
    make({ name, of: 'staff', right: rights[0], rights }, schema, run, async (actor) => {
      if (actor.memberId === null && actor.staffRole === null) return refused(SIGNED_OUT, 'sign-in');
      const powers = await powersOf(actor);
      return rights.some((right) => may(powers, right))
        ? null
        : refused({ '': mayNot(actor, rights[0]) }, 'forbidden');
    });

const mayNot = ({ staffRole }: Actor, right: Right): Problem<ProblemCode> =>
  problem('staff.may-not', { role: staffRole ?? 'none', right });

/** For programs that call the API with a key which has a scope. */
export const keyUse =
  (scope: Scope) =>
  <S extends z.ZodType, T>(name: string, schema: S, run: Run<Actor, S, T>): Use<T> =>
    make({ name, of: 'key', scope }, schema, run, ({ key }) => {
      if (!key) return refused({ '': problem('api.no-key') }, 'sign-in');
      return key.scopes.includes(scope)
        ? null
        : refused({ '': problem('api.no-scope', { scope }) }, 'forbidden');
    });

/** For the worker, gateways and setting up: never for a person. */
export const systemUse = <S extends z.ZodType, T>(name: string, schema: S, run: Run<Actor, S, T>): Use<T> =>
  make({ name, of: 'system' }, schema, run, ({ kind }) =>
    kind === 'worker' || kind === 'gateway' || kind === 'setup'
      ? null
      : refused({ '': problem('form.site-only') }, 'forbidden'),
  );
