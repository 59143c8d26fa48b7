import { z } from 'zod';
import type { Instant } from '@/core/instants';
import type { MailTopic } from '@/core/mail-topics';
import { getsMails } from '@/mail/store/mail-choices';
import { heldAt } from '@/billing/store/holdings';
import { containing, where } from '@/platform/store/conditions';
import { built, many, one, type Db } from '@/platform/store/db';
import { RUNNING, STATES } from '@/core/billing/states';
import type { SubscriptionId } from '@/core/ids';
import type { Json } from '@/billing/store/book-rows';
import { storedFrom, SUBSCRIPTION, type StoredSubscription } from '@/billing/store/subscriptions';

export type MemberRow = {
  id: string;
  name: string;
  email: string;
  joinedAt: Instant;
  /** Real time, to the hour; null: never. */
  seenAt: Instant | null;
  blockedAt: Instant | null;
  tiers: string[];
  groups: string[];
  /** The gateway that the subscription is paid by. */
  gateway: string | null;
  state: string | null;
  subscriptionId: SubscriptionId | null;
  /** Whether any of their subscriptions is suspended by a dispute. */
  isDisputed: boolean;
};

/**
 * What narrows a list of members. `state`: of the subscription that is listed, or `some`, `none` or `disputed`. `seenSince` and
 * `notSeenSince`: real time. `dueBefore`: when the next charge is due. `answers`: by the question's id, the answer.
 */
export type MemberFilter = {
  search?: string;
  tier?: string;
  state?: string;
  group?: string;
  gateway?: string;
  joinedFrom?: Instant;
  joinedUntil?: Instant;
  leftSince?: Instant;
  seenSince?: Instant;
  notSeenSince?: Instant;
  dueBefore?: Instant;
  account?: 'blocked' | 'unconfirmed';
  answer?: { field: string; value: string };
  /** Who gets the mails of a topic. */
  gets?: MailTopic;
  ids?: string[];
};

/** The subscription that a list names beside a member: one in a state first, where one is asked for; then one that still runs. */
export const theirs = (
  mode: string,
  state?: string,
): string => `SELECT s.* FROM subscriptions s WHERE s.member_id = m.id AND s.mode = ${mode}
  ORDER BY ${state ? `(s.state = ${state}) DESC, ` : ''}(s.state <> 'ended') DESC, s.began_at DESC LIMIT 1`;

/** What has ended, or was never paid for, counts where nothing of theirs comes before it; what runs is in its state. */
const isFirst = (s: string): string => `NOT EXISTS (
  SELECT 1 FROM subscriptions o WHERE o.member_id = ${s}.member_id AND o.mode = ${s}.mode
    AND (o.state <> 'ended', o.began_at) > (${s}.state <> 'ended', ${s}.began_at))`;
const RUNNING_STATES: readonly string[] = STATES.filter((state) => RUNNING.has(state));
const IN_STATE = `SELECT s.member_id FROM subscriptions s WHERE s.mode = ? AND s.state = ?`;

const HELD = heldAt('h', '?', '?');

/** Those whose last subscription ended at an instant or after it, and who hold no other. Placeholders for a mode and an instant. */
export const LEFT = (mode: string, since: string): string => `SELECT s.member_id FROM subscriptions s
  WHERE s.mode = ${mode} AND s.state = 'ended' AND s.began_at IS NOT NULL AND s.ended_at >= ${since}
    AND NOT EXISTS (SELECT 1 FROM subscriptions o WHERE o.member_id = s.member_id AND o.mode = s.mode AND o.state NOT IN ('ended', 'pending'))`;

const DISPUTED = `SELECT s.member_id FROM subscriptions s WHERE s.mode = ? AND s.disputes <> '{}'`;

const HAS_SUBSCRIPTION = `SELECT 1 FROM subscriptions s WHERE s.member_id = m.id AND s.mode = ?`;

const PAID_BY = `SELECT s.member_id FROM subscriptions s JOIN gateway_accounts a ON a.id = s.gateway_account_id
  WHERE a.gateway = ? AND s.mode = ? AND s.state NOT IN ('pending', 'ended')`;

/** Shorter words would be in nearly every note, so they are looked for in names and addresses alone. */
const LEAST_IN_NOTES = 3;
const FOUND = `SELECT id FROM members WHERE search_text LIKE ?
  UNION SELECT member_id FROM member_notes WHERE lower(words) LIKE ?
  UNION SELECT member_id FROM checkouts WHERE state = 'done' AND answers <> '[]' AND lower(jsonb_path_query_array(answers, '$[*].value')::text) LIKE ?`;

/** Staff are listed only where they are members too; deleted accounts are not. */
const narrowedBy = (
  mode: string,
  at: Instant,
  filter: MemberFilter,
  page?: { sql: string; values: string[] },
) => {
  const { search, tier, state, group, gateway, joinedFrom, joinedUntil, answer } = filter;
  const words = containing(search ?? '');
  return where([
    [
      `m.deleted_at IS NULL AND (m.staff_role IS NULL OR m.id IN (SELECT m.id FROM members m WHERE m.staff_role IS NOT NULL AND EXISTS (${HAS_SUBSCRIPTION})))`,
      mode,
    ],
    search &&
      (search.length < LEAST_IN_NOTES
        ? ['m.search_text LIKE ?', words]
        : [`m.id IN (${FOUND})`, words, words, words]),
    tier && [
      `m.id IN (SELECT h.member_id FROM holdings h WHERE h.tier_id = ? AND ${HELD})`,
      tier,
      mode,
      at,
      at,
    ],
    state === 'some' && [`EXISTS (${HAS_SUBSCRIPTION} AND s.began_at IS NOT NULL)`, mode],
    state === 'none' && [`NOT EXISTS (${HAS_SUBSCRIPTION})`, mode],
    state === 'disputed' && [`m.id IN (${DISPUTED})`, mode],
    state && RUNNING_STATES.includes(state) && [`m.id IN (${IN_STATE})`, mode, state],
    state &&
      !['some', 'none', 'disputed', ...RUNNING_STATES].includes(state) && [
        `m.id IN (${IN_STATE} AND ${isFirst('s')})`,
        mode,
        state,
      ],
    group && ['m.id IN (SELECT g.member_id FROM group_members g WHERE g.group_id = ?)', group],
    gateway && [`m.id IN (${PAID_BY})`, gateway, mode],
    joinedFrom && ['m.joined_at >= ?', joinedFrom],
    joinedUntil && ['m.joined_at < ?', joinedUntil],
    filter.leftSince && [`m.id IN (${LEFT('?', '?')})`, mode, filter.leftSince],
    filter.seenSince && ['m.seen_at >= ?', filter.seenSince],
    filter.notSeenSince && ['m.seen_at IS NULL OR m.seen_at < ?', filter.notSeenSince],
    filter.dueBefore && [
      `m.id IN (SELECT s.member_id FROM subscriptions s WHERE s.mode = ? AND s.due_at < ? AND s.state IN ('trial', 'active', 'overdue'))`,
      mode,
      filter.dueBefore,
    ],
    filter.account === 'blocked' && ['m.blocked_at IS NOT NULL'],
    filter.account === 'unconfirmed' && ['m.email_confirmed_at IS NULL'],
    answer && [
      `m.id IN (SELECT k.member_id FROM checkouts k WHERE k.state = 'done' AND k.answers <> '[]' AND k.answers @> ?::jsonb)`,
      JSON.stringify([{ fieldId: answer.field, value: answer.value }]),
    ],
    filter.gets && [`m.blocked_at IS NULL AND ${getsMails('m', filter.gets)}`],
    filter.ids && ['m.id = ANY (?::uuid[])', filter.ids],
    page && [page.sql, ...page.values],
  ]);
};

export const MEMBER_SORTS = ['joined', 'name'] as const;
export type MemberSort = (typeof MEMBER_SORTS)[number];
/** A place in a list: the member at it, and what they are sorted by. */
export type ListPlace = { key: string; id: string };

/** The key, its direction, and which side of a place comes after it. */
const SORTS = {
  joined: { key: 'm.joined_at', type: 'timestamptz', order: 'DESC', after: '<', before: '>', back: 'ASC' },
  name: { key: 'lower(m.name)', type: 'text', order: 'ASC', after: '>', before: '<', back: 'DESC' },
} as const;

type Page = { limit: number; sort?: MemberSort; after?: ListPlace; before?: ListPlace };

/**
 * Members with what they hold at an instant, `limit` of them after or before a place, in the order of the list. Each has the
 * key of its own place, and the subscription that is named beside it.
 */
export async function listMembers(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  { limit, sort = 'joined', after, before }: Page,
): Promise<(MemberRow & { key: string; subscription: StoredSubscription | null })[]> {
  const by = SORTS[sort];
  const from = after ?? before;
  const narrowed = narrowedBy(
    mode,
    at,
    filter,
    from && {
      sql: `(${by.key}, m.id) ${after ? by.after : by.before} (?::${by.type}, ?::uuid)`,
      values: [from.key, from.id],
    },
  );
  const [most, inMode, now] = [narrowed.add(limit), narrowed.add(mode), narrowed.add(at)];
  const order = after || !before ? by.order : by.back;
  // The page is selected first, so that the other columns are looked up for its members only.
  const rows = await many<MemberRow & { key: string; row: Json | null }>(
    db,
    `SELECT m.id, m.name, m.email, m.joined_at, m.seen_at, m.blocked_at, ${by.key}::text AS key, held.tiers, s.state, s.id AS subscription_id, a.gateway, CASE WHEN s.id IS NOT NULL THEN ${SUBSCRIPTION} END AS row,
       coalesce((SELECT array_agg(g.group_id ORDER BY g.group_id) FROM group_members g WHERE g.member_id = m.id), '{}') AS groups,
       m.id IN (${DISPUTED.replace('?', inMode)}) AS is_disputed
     FROM (SELECT m.* FROM members m ${narrowed.sql} ORDER BY ${by.key} ${order}, m.id ${order} LIMIT ${most}) m
     LEFT JOIN LATERAL (${theirs(inMode, filter.state ? narrowed.add(filter.state) : undefined)}) s ON true
     LEFT JOIN gateway_accounts a ON a.id = s.gateway_account_id
     LEFT JOIN LATERAL (
       SELECT coalesce(array_agg(DISTINCT h.tier_id), '{}') AS tiers FROM holdings h
       WHERE h.member_id = m.id AND ${HELD.replace('?', inMode).replaceAll('?', now)}
     ) held ON true
     ORDER BY ${by.key} ${order}, m.id ${order}`,
    narrowed.values,
    { row: built },
  );
  const read = rows.map(({ row, ...member }) => ({ ...member, subscription: row && storedFrom(row) }));
  return order === by.order ? read : read.reverse();
}

/** The ids of some of the members that a filter leaves, in the order in which they joined, the newest first. */
export async function listJoined(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  { limit, after }: { limit: number; after: ListPlace | undefined },
): Promise<{ id: string; joinedAt: Instant }[]> {
  const page = after && {
    sql: '(m.joined_at, m.id) < (?::timestamptz, ?::uuid)',
    values: [after.key, after.id],
  };
  const narrowed = narrowedBy(mode, at, filter, page);
  return many(
    db,
    `SELECT m.id, m.joined_at FROM members m ${narrowed.sql}
     ORDER BY m.joined_at DESC, m.id DESC LIMIT ${narrowed.add(limit)}`,
    narrowed.values,
  );
}

/** The ids of some of the members that a filter leaves, by id, after one of them: nobody is met twice while things change. */
export async function listMemberIds(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  { limit, after }: { limit: number; after: string | null },
): Promise<string[]> {
  const narrowed = narrowedBy(
    mode,
    at,
    filter,
    after ? { sql: 'm.id > ?::uuid', values: [after] } : undefined,
  );
  const rows = await many<{ id: string }>(
    db,
    `SELECT m.id FROM members m ${narrowed.sql} ORDER BY m.id LIMIT ${narrowed.add(limit)}`,
    narrowed.values,
  );
  return rows.map(({ id }) => id);
}

/** How many a filter leaves, counted up to `most`; one more than that where there are more. */
export async function countMembers(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  most: number,
): Promise<number> {
  const narrowed = narrowedBy(mode, at, filter);
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM (SELECT 1 FROM members m ${narrowed.sql} LIMIT ${narrowed.add(most + 1)}) found`,
    narrowed.values,
  );
  return Number(count);
}

const planSchema = z.tuple([z.object({ Plan: z.object({ 'Plan Rows': z.number() }) })]);

/** Near how many a filter leaves, as the planner of PostgreSQL expects. */
export async function estimateMembers(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
): Promise<number> {
  const narrowed = narrowedBy(mode, at, filter);
  const { 'QUERY PLAN': plan } = await one<{ 'QUERY PLAN': z.output<typeof planSchema> }>(
    db,
    `EXPLAIN (FORMAT JSON) SELECT 1 FROM members m ${narrowed.sql}`,
    narrowed.values,
    { 'QUERY PLAN': planSchema },
  );
  return plan[0].Plan['Plan Rows'];
}

export type Facet = { id: string; count: number };
export type FacetName = 'tier' | 'state' | 'group' | 'gateway';

/**
 * How many of the members that a filter leaves are in each part of a facet. By itself, an empty filter need not look at the
 * members: those who have left hold nothing and are in no group.
 */
export async function countFacet(
  db: Db,
  mode: string,
  at: Instant,
  filter: MemberFilter,
  facet: FacetName,
): Promise<Facet[]> {
  const isNarrow = Object.values(filter).some((value) => value !== '');
  const narrowed = isNarrow ? narrowedBy(mode, at, filter) : where([]);
  const within = (whose: string): string =>
    isNarrow ? `AND ${whose} IN (SELECT m.id FROM members m ${narrowed.sql})` : '';
  const given = { mode: () => narrowed.add(mode), now: () => narrowed.add(at) };
  const rows = await many<{ id: string; count: bigint }>(
    db,
    `${FACETS[facet](given, within)} GROUP BY 1 ORDER BY 2 DESC, 1`,
    narrowed.values,
  );
  return rows.map(({ id, count }) => ({ id, count: Number(count) }));
}

type Given = { mode: () => string; now: () => string };
const FACETS: Record<FacetName, (given: Given, within: (whose: string) => string) => string> = {
  tier: ({ mode, now }, within) =>
    `SELECT h.tier_id AS id, count(DISTINCT h.member_id) AS count FROM holdings h
     WHERE ${heldAt('h', mode(), now())} ${within('h.member_id')}`,
  // In two parts, so that those of which nothing runs are found by one join and not one by one.
  state: ({ mode }, within) => {
    const [inMode, own] = [mode(), within('s.member_id')];
    return `SELECT id, count(DISTINCT member_id) AS count FROM (
       SELECT s.state AS id, s.member_id FROM subscriptions s WHERE s.mode = ${inMode} AND s.state NOT IN ('pending', 'ended') ${own}
       UNION ALL SELECT s.state, s.member_id FROM subscriptions s
         WHERE s.mode = ${inMode} AND s.state IN ('pending', 'ended') AND ${isFirst('s')} ${own}) found`;
  },
  group: (_, within) =>
    `SELECT g.group_id AS id, count(*) AS count FROM group_members g WHERE true ${within('g.member_id')}`,
  gateway: ({ mode }, within) =>
    `SELECT a.gateway AS id, count(DISTINCT s.member_id) AS count FROM subscriptions s
     JOIN gateway_accounts a ON a.id = s.gateway_account_id
     WHERE s.mode = ${mode()} AND s.state NOT IN ('pending', 'ended') ${within('s.member_id')}`,
};

/** Members, not staff, who came between two instants of the site's clock and have joined by some offer in a mode. */
export async function countJoined(db: Db, mode: string, from: Instant, to: Instant): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM members m WHERE staff_role IS NULL AND deleted_at IS NULL AND joined_at >= $1 AND joined_at < $2
       AND EXISTS (SELECT 1 FROM subscriptions s WHERE s.member_id = m.id AND s.mode = $3 AND s.began_at IS NOT NULL)`,
    [from, to, mode],
  );
  return Number(count);
}
