/**
 * Every list of the Desk on a very full site: how long it takes, and which tables PostgreSQL read from end to end.
 * npm run bench -- lists [how many members]
 */
import { benchSite, makeDue, type BenchSite } from './lib/site';

/** A scan of a table smaller than this is the right plan. */
const SMALL = 5_000;

/** For each member three paid months with their receipts, an unfinished checkout for one in twenty, a message a payment. */
async function fill({ db, accountId, versionId }: BenchSite, count: number): Promise<void> {
  await makeDue(db, count, accountId, versionId);
  const statements = [
    `INSERT INTO charges (subscription_id, mode, number, state, tier_id, period_kind, price, due, step, n, amount, joining_fee, currency, due_at, paid_at, lived_from, lived_to, is_invoiced)
     SELECT s.id, 'test', 4 - n, 'paid', 'observer', 'repeat', 600, 600, 0, n, 600, 0, 'GBP', s.began_at - n * interval '1 month', s.began_at - n * interval '1 month',
       s.began_at - n * interval '1 month', s.began_at - (n - 1) * interval '1 month', true
     FROM subscriptions s, generate_series(1, 3) n`,
    `INSERT INTO payments (charge_id, mode, gateway_account_id, attempt, idempotency_key, amount, currency, state, gateway_ref, at, settled_at)
     SELECT id, 'test', $1, 1, 'k' || id, 600, 'GBP', 'succeeded', 'ref' || id, due_at, due_at FROM charges`,
    `INSERT INTO documents (mode, kind, number, label, member_id, charge_id, currency, total, tax, at, content)
     SELECT 'test', 'invoice', row_number() OVER (), 'T-' || row_number() OVER (), s.member_id, c.id, 'GBP', 600, 0, c.due_at, '{"buyer": {"name": "Due", "email": "due@moor.example"}}'
     FROM charges c JOIN subscriptions s ON s.id = c.subscription_id`,
    `INSERT INTO mails (dedupe_key, member_id, to_address, template, subject, text_body, html_body, state, at)
     SELECT 'receipt' || c.id, s.member_id, 'due@moor.example', 'receipt', 'Receipt', 'x', 'y', 'sent', c.due_at
     FROM charges c JOIN subscriptions s ON s.id = c.subscription_id`,
    `INSERT INTO gateway_events (gateway_account_id, message_id, payload, state)
     SELECT $1, 'm' || id, '{}', 'done' FROM payments`,
    `WITH left_open AS (
       INSERT INTO subscriptions (member_id, mode, track, offer_version_id, state, anchor_at)
       SELECT member_id, 'test', 'observing', offer_version_id, 'pending', anchor_at FROM subscriptions
       WHERE abs(hashtext(id::text)) % 20 = 0 RETURNING id, member_id
     ) INSERT INTO checkouts (id, subscription_id, track, mode, member_id, email, name, return_to, state, at, offer_id)
       SELECT gen_random_uuid(), id, 'observing', 'test', member_id, 'x@moor.example', 'X', '/', 'open', now(), 'monthly' FROM left_open`,
    `INSERT INTO audit (at, actor_kind, action, subject, detail)
     SELECT anchor_at, 'worker', 'payment received', 'subscription:' || id, '{}' FROM subscriptions`,
    `INSERT INTO sessions (token_hash, member_id, expires_at) SELECT sha256(id::text::bytea), id, now() + interval '1 day' FROM members`,
  ];
  for (const statement of statements) await db.query(statement, statement.includes('$1') ? [accountId] : []);
  await db.query('VACUUM ANALYZE');
}

type Plan = {
  'Node Type': string;
  'Relation Name'?: string;
  'Actual Rows'?: number;
  'Rows Removed by Filter'?: number;
  'Actual Loops'?: number;
  Plans?: Plan[];
};

/** Tables that a plan reads from end to end. */
function readWhole(plan: Plan): string[] {
  const here =
    plan['Node Type'] === 'Seq Scan' &&
    (plan['Actual Rows'] ?? 0) + (plan['Rows Removed by Filter'] ?? 0) > SMALL
      ? [plan['Relation Name'] ?? '?']
      : [];
  return [...here, ...(plan.Plans ?? []).flatMap(readWhole)];
}

export async function run(args: string[]): Promise<void> {
  const count = Number(args[0] ?? 100_000);
  const site = await benchSite('http://127.0.0.1:9');
  try {
    await fill(site, count);
    // PostgreSQL tells the plan of each statement as it ran, as a notice.
    const { rows } = await site.db.query<{ current_database: string }>('SELECT current_database()');
    for (const setting of [
      `session_preload_libraries = 'auto_explain'`,
      `auto_explain.log_min_duration = 0`,
      `auto_explain.log_analyze = on`,
      `auto_explain.log_format = 'json'`,
      `auto_explain.log_level = 'notice'`,
    ])
      await site.db.query(`ALTER DATABASE ${rows[0]?.current_database} SET ${setting}`);
    const { closePools, pool } = await import('../src/platform/store/db');
    await closePools();
    const scans: { table: string; query: string }[] = [];
    pool().on('connect', (client) =>
      client.on('notice', ({ message = '' }) => {
        const told = /plan:\s*(\{[\s\S]*\})/.exec(message)?.[1];
        if (!told) return;
        const { Plan: plan, 'Query Text': query } = JSON.parse(told) as { Plan: Plan; 'Query Text': string };
        for (const table of readWhole(plan)) scans.push({ table, query: query.replace(/\s+/g, ' ') });
      }),
    );
    const { findMemberByEmail } = await import('../src/people/store/members');
    const owner = { kind: 'staff' as const, staffRole: 'owner' as const };
    const { OWNER } = await import('../scripts/lib/load-demo');
    const memberId = (await findMemberByEmail(pool(), OWNER.email))?.id ?? '';
    const actor = { ...owner, memberId };
    const [members, money, tiers, unfinished, gateways, mails, today, transfers, find, frame, file, books] =
      await Promise.all([
        import('../src/members/services/find-members'),
        import('../src/desk/services/money-lists'),
        import('../src/desk/services/tier-overview'),
        import('../src/checkout/services/unfinished-checkouts'),
        import('../src/billing/services/gateway-list'),
        import('../src/mail/services/mail-log'),
        import('../src/desk/services/today'),
        import('../src/billing/services/transfer-list'),
        import('../src/desk/services/find-anything'),
        import('../src/desk/services/desk-frame'),
        import('../src/members/services/member-file'),
        import('../src/members/services/subscription-file'),
      ]);
    const someone = await site.one(`SELECT id FROM members WHERE email = 'due777@moor.example'`);
    const theirs = await site.one(`SELECT id FROM subscriptions WHERE member_id = $1`, [someone]);
    const LISTS: Record<string, () => Promise<{ ok: boolean }>> = {
      members: () => members.findMembers(actor, {}),
      'members by name': () => members.findMembers(actor, { sort: 'name' }),
      'members searched': () => members.findMembers(actor, { q: 'due 777' }),
      'members of a tier': () => members.findMembers(actor, { tier: 'observer' }),
      'members in a state': () => members.findMembers(actor, { state: 'active' }),
      find: () => find.findAnything(actor, 'due 777'),
      'a member': () => file.memberFile(actor, someone),
      'a subscription': () => books.subscriptionFile(actor, theirs),
      subscriptions: () => money.subscriptionList(actor, {}),
      'subscriptions searched': () => money.subscriptionList(actor, { search: 'due777' }),
      payments: () => money.paymentList(actor, {}),
      'payments declined': () => money.paymentList(actor, { state: 'declined' }),
      'payments searched': () => money.paymentList(actor, { search: 'due777' }),
      'due in 30 days': () => money.upcomingCharges(actor, undefined),
      failed: () => money.failedList(actor, undefined),
      books: () => money.books(actor, {}),
      'books of a month': () => money.books(actor, { month: new Date().toISOString().slice(0, 7) }),
      transfers: () => transfers.transferList(actor, undefined),
      messages: () => gateways.gatewayMessages(actor, ''),
      gateways: () => gateways.gatewayList(actor, undefined),
      'mail log': () => mails.mailLog(actor, {}),
      'mail log searched': () => mails.mailLog(actor, { search: 'due777' }),
      tiers: () => tiers.tierOverview(actor, undefined),
      'unfinished checkouts': () => unfinished.unfinishedCheckouts(actor, undefined),
      today: () => today.today(actor, undefined),
      'frame of every page': () => frame.deskFrame(actor, undefined),
    };
    console.log(`${count} members, each with three payments`);
    for (const [name, list] of Object.entries(LISTS)) {
      scans.length = 0;
      const begun = performance.now();
      const answer = await list();
      const ms = Math.round(performance.now() - begun);
      console.log(`  ${name.padEnd(24)} ${String(ms).padStart(6)} ms${answer.ok ? '' : '  REFUSED'}`);
      for (const { table, query } of scans)
        console.log(`      reads all of ${table}: ${query.slice(0, 300)}`);
    }
  } finally {
    await site.close();
  }
}
