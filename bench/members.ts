/**
 * The members' list of a very full site: a million members with 1.3 million subscriptions. How long the service takes for the
 * first page, a deep one, a search, each filter and facet, against the plainest SQL that answers the same; and how fast the
 * list is exported. npm run bench -- members [how many]
 */
import type { Actor } from '../src/platform/actor';
import { answering } from '../src/platform/request';
import { benchSite, type BenchSite } from './lib/site';

const ROUNDS = 25;

/** Members over five years; one in three with a subscription that ended before the one they have, one in fifty in a group. */
async function fill({ db, accountId, versionId }: BenchSite, count: number): Promise<void> {
  const statements = [
    `INSERT INTO members (email, name, joined_at, seen_at, email_confirmed_at)
     SELECT 'm' || n || '@moor.example', 'Member ' || md5(n::text), date_trunc('milliseconds', now() - n * interval '150 seconds'),
       CASE WHEN n % 4 > 0 THEN now() - (n % 400) * interval '1 day' END, now() FROM generate_series(1, ${count}) n`,
    `INSERT INTO subscriptions (member_id, mode, track, offer_version_id, state, anchor_at, began_at, ended_at, period_step, period_n)
     SELECT id, 'test', 'observing', $2, 'ended', joined_at, joined_at, joined_at + interval '1 day', 0, 0 FROM members WHERE staff_role IS NULL AND abs(hashtext(id::text)) % 10 < 3`,
    `INSERT INTO subscriptions (member_id, mode, track, offer_version_id, state, anchor_at, began_at, period_step, period_n, paid_through, due_at, next_at, gateway_account_id)
     SELECT id, 'test', 'observing', $2, CASE WHEN abs(hashtext(id::text)) % 20 = 0 THEN 'overdue' ELSE 'active' END, joined_at + interval '2 days', joined_at + interval '2 days', 0, 0,
       now() + abs(hashtext(id::text)) % 30 * interval '1 day', now() + abs(hashtext(id::text)) % 30 * interval '1 day', now() + abs(hashtext(id::text)) % 30 * interval '1 day', $1
     FROM members WHERE staff_role IS NULL`,
    `INSERT INTO holdings (member_id, tier_id, mode, why, subscription_id, is_paid, from_at, since_at)
     SELECT member_id, 'observer', 'test', 'subscription', id, true, began_at, began_at FROM subscriptions WHERE state <> 'ended'`,
    `INSERT INTO groups (id, name) VALUES ('committee', 'Committee')`,
    `INSERT INTO group_members (group_id, member_id, added_at) SELECT 'committee', id, now() FROM members WHERE staff_role IS NULL AND abs(hashtext(id::text)) % 50 = 0`,
    `INSERT INTO member_notes (member_id, words, is_shown, at) SELECT id, 'Note on ' || name, false, now() FROM members WHERE abs(hashtext(id::text)) % 10 = 0`,
  ];
  for (const statement of statements) {
    const values = [accountId, versionId].filter((_, n) => statement.includes(`$${n + 1}`));
    await db.query(statement.includes('$1') ? statement : statement.replace('$2', '$1'), values);
  }
  await db.query('VACUUM ANALYZE');
}

const at = (sorted: number[], share: number): number => sorted[Math.floor(sorted.length * share)] ?? 0;

/** Asks a few times before it counts: a site that is in use has compiled what it runs. */
async function timed(ask: () => Promise<unknown>, rounds: number): Promise<{ middle: number; p95: number }> {
  for (let round = 0; round * 3 < rounds; round++) await ask();
  const took: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const begun = performance.now();
    await ask();
    took.push(performance.now() - begun);
  }
  took.sort((a, b) => a - b);
  return { middle: at(took, 0.5), p95: at(took, 0.95) };
}

export async function run(args: string[]): Promise<void> {
  const count = Number(args[0] ?? 1_000_000);
  const site = await benchSite('http://127.0.0.1:9');
  try {
    await fill(site, count);
    const { db } = site;
    const { findMembers, memberFacets } = await import('../src/members/services/find-members');
    const { exportMembers } = await import('../src/members/services/export-members');
    const memberId = await site.one(`SELECT id FROM members WHERE staff_role = 'owner'`);
    const actor: Actor = { kind: 'staff', memberId, staffRole: 'owner' };
    const list = async (asked: Record<string, string>) => {
      // As in a request, in which what is the same for everyone is read once for each version of the site.
      const request = { isTakenUp: false, isUnreadable: false, share: {} };
      const found = await answering(request, () => findMembers(actor, asked));
      if (!found.ok) throw new Error('the list was refused');
      return found.value;
    };
    /**
     * The same page written out by hand: its rows with what each holds, their groups, the subscription from which the next
     * charge is worked out and its gateway, and a count up to 10,000.
     */
    const page = (more = '', order = 'joined_at DESC, id DESC') =>
      `SELECT m.id, m.name, m.email, m.joined_at, m.seen_at, to_jsonb(s) AS subscription, a.gateway,
         (SELECT array_agg(h.tier_id) FROM holdings h WHERE h.member_id = m.id AND h.until_at IS NULL) AS tiers,
         (SELECT array_agg(g.group_id) FROM group_members g WHERE g.member_id = m.id) AS groups
       FROM (SELECT * FROM members m WHERE deleted_at IS NULL ${more} ORDER BY ${order} LIMIT 51) m
       LEFT JOIN LATERAL (SELECT * FROM subscriptions s WHERE s.member_id = m.id ORDER BY (state <> 'ended') DESC, began_at DESC LIMIT 1) s ON true
       LEFT JOIN gateway_accounts a ON a.id = s.gateway_account_id ORDER BY m.joined_at DESC, m.id DESC;
       SELECT count(*) FROM (SELECT 1 FROM members m WHERE deleted_at IS NULL ${more.includes('(joined_at, id)') ? '' : more} LIMIT 10001) found`;
    const deep = await db.query<{ joined: string; id: string }>(
      'SELECT joined_at::text AS joined, id FROM members WHERE deleted_at IS NULL ORDER BY joined_at DESC, id DESC OFFSET $1 LIMIT 1',
      [Math.floor(count * 0.9)],
    );
    const { joined = '', id = '' } = deep.rows[0] ?? {};
    const running = `s.mode = 'test' AND s.state NOT IN ('pending', 'ended')`;
    const rows: [name: string, ask: () => Promise<unknown>, bare: string][] = [
      ['first page', () => list({}), page()],
      [
        'deep page',
        () => list({ after: `${id}~${joined}` }),
        page(`AND (joined_at, id) < ('${joined}', '${id}')`),
      ],
      ['by name', () => list({ sort: 'name' }), page('', 'lower(name), id')],
      [
        'search',
        () => list({ q: 'm77777@' }),
        page(`AND id IN (SELECT id FROM members WHERE search_text LIKE '%m77777@%'
          UNION SELECT member_id FROM member_notes WHERE lower(words) LIKE '%m77777@%'
          UNION SELECT member_id FROM checkouts WHERE state = 'done' AND answers <> '[]' AND lower(jsonb_path_query_array(answers, '$[*].value')::text) LIKE '%m77777@%')`),
      ],
      [
        'of a tier',
        () => list({ tier: 'observer' }),
        page(
          `AND EXISTS (SELECT 1 FROM holdings h WHERE h.member_id = m.id AND h.tier_id = 'observer' AND h.until_at IS NULL)`,
        ),
      ],
      [
        'in a group',
        () => list({ group: 'committee' }),
        page(`AND id IN (SELECT member_id FROM group_members WHERE group_id = 'committee')`),
      ],
      [
        'overdue',
        () => list({ state: 'overdue' }),
        page(`AND id IN (SELECT member_id FROM subscriptions WHERE mode = 'test' AND state = 'overdue')`),
      ],
    ];
    console.log(`${count.toLocaleString('en-GB')} members`);
    const line = (name: string, own: { middle: number; p95: number }, bare: { middle: number }): void =>
      console.log(
        `  ${name.padEnd(16)} ${own.middle.toFixed(1).padStart(9)} ms, p95 ${own.p95.toFixed(1).padStart(8)} ms; bare SQL ${bare.middle.toFixed(1).padStart(8)} ms: ${(own.middle / bare.middle).toFixed(2)} times`,
      );
    for (const [name, ask, bare] of rows)
      line(name, await timed(ask, ROUNDS), await timed(() => db.query(bare), ROUNDS));
    const FACETS = {
      tier: `SELECT tier_id, count(DISTINCT member_id) FROM holdings h WHERE mode = 'test' AND from_at <= now() AND (until_at IS NULL OR until_at > now()) GROUP BY 1`,
      state: `SELECT state, count(DISTINCT member_id) FROM subscriptions WHERE mode = 'test' GROUP BY 1`,
      group: `SELECT group_id, count(*) FROM group_members GROUP BY 1`,
      gateway: `SELECT a.gateway, count(DISTINCT s.member_id) FROM subscriptions s JOIN gateway_accounts a ON a.id = s.gateway_account_id WHERE ${running} GROUP BY 1`,
    };
    const { countFacet } = await import('../src/members/store/member-lists');
    const { pool } = await import('../src/platform/store/db');
    const now = new Date().toISOString() as `${number}-${number}-${number}T${string}Z`;
    for (const facet of ['tier', 'state', 'group', 'gateway'] as const)
      line(
        `facet ${facet}`,
        await timed(() => countFacet(pool(), 'test', now, {}, facet), 3),
        await timed(() => db.query(FACETS[facet]), 3),
      );
    console.log(
      `  all facets at once ${(await timed(() => memberFacets(actor, {}), 3)).middle.toFixed(0)} ms`,
    );
    const exported = await exportMembers(actor, { filter: {}, form: 'csv' });
    if (!exported.ok) throw new Error('the export was refused');
    const begun = performance.now();
    let characters = 0;
    for await (const piece of exported.value.lines) characters += piece.length;
    const seconds = (performance.now() - begun) / 1000;
    // The same lines as one statement, read to its end: what the database alone takes for it.
    const bareBegun = performance.now();
    await db.query(
      `SELECT count(line) FROM (SELECT concat_ws(',', m.email, m.name, m.joined_at, t.name, h.since_at, h.until_at, h.why,
           (SELECT s.state FROM subscriptions s WHERE s.member_id = m.id ORDER BY (s.state <> 'ended') DESC, s.began_at DESC LIMIT 1),
           (SELECT string_agg(g.name, '; ') FROM group_members x JOIN groups g ON g.id = x.group_id WHERE x.member_id = m.id),
           (SELECT string_agg(p.name, '; ') FROM held_passes x JOIN passes p ON p.id = x.pass_id WHERE x.member_id = m.id AND x.until_at IS NULL),
           (SELECT string_agg(n.words, E'\\n') FROM member_notes n WHERE n.member_id = m.id), m.country, m.seen_at) AS line
         FROM members m LEFT JOIN holdings h ON h.member_id = m.id AND h.until_at IS NULL LEFT JOIN tiers t ON t.id = h.tier_id ORDER BY m.joined_at DESC, m.id DESC) lines`,
    );
    const bare = Math.round(count / ((performance.now() - bareBegun) / 1000));
    console.log(
      `  export ${Math.round(count / seconds).toLocaleString('en-GB')} members a second (the database alone: ${bare.toLocaleString('en-GB')}), ${(characters / 1e6).toFixed(0)} MB of CSV in ${seconds.toFixed(0)} s, at ${Math.round(process.memoryUsage().rss / 1e6)} MB`,
    );
  } finally {
    await site.close();
  }
}
