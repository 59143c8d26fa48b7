import type { Instant } from '@/core/calendar';
import type { Subscription } from '@/core/subscriptions/subscription';
import { many, maybeOne, one, run, type Db, prepared } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';

export type StoredSubscription = Subscription & {
  id: string;
  memberId: string | null;
  mode: Mode;
  track: string;
  /** Tells apart several subscriptions of one person to one tier. */
  slot: string;
  offerVersionId: string;
  /** The version under which it goes on from its next period. */
  movesTo: string | null;
  /** The version to which the owner moved it. */
  ownerMovedTo: string | null;
  /** Rises with every event of its life. */
  events: number;
  gatewayAccountId: string | null;
  customerRef: string | null;
  methodRef: string | null;
  methodLabel: string | null;
  /** Where its payer is, for the tax; '' where it was not asked. */
  taxCountry: string;
  /** The rate that stands on top of every amount of its offer, since it was bought. */
  addedTax: number;
  /** The last month in which the kept card can pay, "2028-11". */
  methodExpires: string | null;
  /** When its member is told of the charge that comes next. */
  remindAt: Instant | null;
};

/** As it lies in its table; for the other files that read it. */
export type Row = Omit<StoredSubscription, 'period' | 'takesUp'> & {
  periodStep: number | null;
  periodN: number | null;
  takesUpStep: number;
  takesUpN: number;
};

export const fromRow = ({ periodStep, periodN, takesUpStep, takesUpN, ...row }: Row): StoredSubscription => ({
  ...row,
  takesUp: { step: takesUpStep, n: takesUpN },
  period: periodStep === null || periodN === null ? null : { step: periodStep, n: periodN },
});

export const COLUMNS = `id, member_id, mode, track, slot, offer_version_id, moves_to, owner_moved_to, events, state, started_at, skip_trial, skip_fee, number_from, period_step, period_n, paid_through, due_at,
  takes_up_step, takes_up_n, pauses, disputed_at, failures, first_failed_at, ended_at, gateway_account_id, customer_ref, method_ref, method_label, tax_country, added_tax, method_expires, remind_at`;

export type NewSubscription = Pick<
  StoredSubscription,
  | 'memberId'
  | 'mode'
  | 'track'
  | 'slot'
  | 'offerVersionId'
  | 'startedAt'
  | 'skipTrial'
  | 'skipFee'
  | 'gatewayAccountId'
  | 'taxCountry'
  | 'addedTax'
>;

export async function insertPending(db: Db, s: NewSubscription): Promise<StoredSubscription> {
  return fromRow(
    await one<Row>(
      db,
      `INSERT INTO subscriptions (member_id, mode, track, slot, offer_version_id, state, started_at, skip_trial, skip_fee, gateway_account_id, tax_country, added_tax)
       VALUES ($1, $2, $3, $4, $5, 'pending', $6, $7, $8, $9, $10, $11) RETURNING ${COLUMNS}`,
      [
        s.memberId,
        s.mode,
        s.track,
        s.slot,
        s.offerVersionId,
        s.startedAt,
        s.skipTrial,
        s.skipFee,
        s.gatewayAccountId,
        s.taxCountry,
        s.addedTax,
      ],
    ),
  );
}

export async function findSubscription(db: Db, id: string): Promise<StoredSubscription | undefined> {
  const row = await maybeOne<Row>(db, `SELECT ${COLUMNS} FROM subscriptions WHERE id = $1`, [id]);
  return row && fromRow(row);
}

const LOCK_SUBSCRIPTION = prepared(
  'lock-subscription',
  `SELECT ${COLUMNS} FROM subscriptions WHERE id = $1 FOR UPDATE`,
);

/** The subscription, locked until the transaction ends. */
export async function lockSubscription(db: Db, id: string): Promise<StoredSubscription | undefined> {
  const row = await maybeOne<Row>(db, LOCK_SUBSCRIPTION, [id]);
  return row && fromRow(row);
}

/** Running subscriptions first, then ended ones, newest first; joinings under way are left out. */
export async function listSubscriptionsOf(
  db: Db,
  memberId: string,
  mode: Mode,
): Promise<StoredSubscription[]> {
  const rows = await many<Row>(
    db,
    `SELECT ${COLUMNS} FROM subscriptions WHERE member_id = $1 AND mode = $2 AND state <> 'pending'
     ORDER BY (state <> 'ended') DESC, started_at DESC`,
    [memberId, mode],
  );
  return rows.map(fromRow);
}

export async function listSubscriptionsById(db: Db, ids: string[]): Promise<StoredSubscription[]> {
  return (await many<Row>(db, `SELECT ${COLUMNS} FROM subscriptions WHERE id = ANY ($1)`, [ids])).map(
    fromRow,
  );
}

export async function findRunning(
  db: Db,
  memberId: string,
  mode: Mode,
  track: string,
  slot = '',
): Promise<StoredSubscription | undefined> {
  const row = await maybeOne<Row>(
    db,
    `SELECT ${COLUMNS} FROM subscriptions
     WHERE member_id = $1 AND mode = $2 AND track = $3 AND slot = $4 AND state NOT IN ('pending', 'ended')`,
    [memberId, mode, track, slot],
  );
  return row && fromRow(row);
}

/** Whether the person has had a trial on this ladder, or of this tier off a ladder. There is one. */
export async function hasHadTrial(db: Db, memberId: string, mode: Mode, track: string): Promise<boolean> {
  const found = await maybeOne(
    db,
    'SELECT 1 FROM subscriptions WHERE member_id = $1 AND mode = $2 AND track = $3 AND had_trial LIMIT 1',
    [memberId, mode, track],
  );
  return found !== undefined;
}

const SAVE_LIFE = prepared(
  'save-life',
  `UPDATE subscriptions SET state = $2, started_at = $3, skip_trial = $4, period_step = $5, period_n = $6, paid_through = $7,
       due_at = $8, failures = $9, first_failed_at = $10, ended_at = $11, skip_fee = $12, number_from = $13,
       takes_up_step = $14, takes_up_n = $15, pauses = $16, disputed_at = $17, had_trial = had_trial OR $2 = 'trial',
       busy_until = NULL, waits_until = NULL, events = events + 1, remind_at = $18 WHERE id = $1`,
);

/** Writes what the life of a subscription changed, when its member is told of the next charge, and ends any lease on it. */
export async function saveLife(db: Db, id: string, s: Subscription, remindAt: Instant | null): Promise<void> {
  await run(db, SAVE_LIFE, [
    id,
    s.state,
    s.startedAt,
    s.skipTrial,
    s.period?.step ?? null,
    s.period?.n ?? null,
    s.paidThrough,
    s.dueAt,
    s.failures,
    s.firstFailedAt,
    s.endedAt,
    s.skipFee,
    s.numberFrom,
    s.takesUp.step,
    s.takesUp.n,
    s.pauses,
    s.disputedAt,
    remindAt,
  ]);
}

/** The subscription now runs under the version it was moved to. */
export async function completeMove(db: Db, id: string): Promise<void> {
  await run(
    db,
    'UPDATE subscriptions SET offer_version_id = moves_to, moves_to = NULL, owner_moved_to = NULL WHERE id = $1 AND moves_to IS NOT NULL',
    [id],
  );
}

/** Has a joining not yet paid go by another version of its offer, from another moment. */
export async function setPendingTerms(
  db: Db,
  id: string,
  t: Omit<NewSubscription, 'memberId' | 'mode' | 'track' | 'slot'>,
): Promise<void> {
  await run(
    db,
    `UPDATE subscriptions SET offer_version_id = $2, started_at = $3, skip_trial = $4, skip_fee = $5, gateway_account_id = $6, tax_country = $7, added_tax = $8
     WHERE id = $1 AND state = 'pending'`,
    [id, t.offerVersionId, t.startedAt, t.skipTrial, t.skipFee, t.gatewayAccountId, t.taxCountry, t.addedTax],
  );
}

/** Whether the member has switched on this track before. */
export async function hasSwitched(db: Db, memberId: string, mode: Mode, track: string): Promise<boolean> {
  return (
    (await maybeOne(
      db,
      'SELECT 1 FROM subscriptions WHERE member_id = $1 AND mode = $2 AND track = $3 AND skip_fee LIMIT 1',
      [memberId, mode, track],
    )) !== undefined
  );
}

/** Running subscriptions of a mode by tier, with the version and step they are in: what monthly income is made of. */
export async function listRunningSteps(
  db: Db,
  mode: Mode,
): Promise<{ offerVersionId: string; step: number; count: number }[]> {
  return many(
    db,
    `SELECT offer_version_id, coalesce(period_step, 0) AS step, count(*)::integer AS count FROM subscriptions
     WHERE mode = $1 AND state IN ('active', 'overdue') GROUP BY 1, 2`,
    [mode],
  );
}

export async function setMember(db: Db, id: string, memberId: string): Promise<void> {
  await run(db, 'UPDATE subscriptions SET member_id = $2 WHERE id = $1', [id, memberId]);
}

export async function setMethod(
  db: Db,
  id: string,
  method: { customerRef: string; methodRef: string; methodLabel: string; methodExpires: string | null },
): Promise<void> {
  await run(
    db,
    'UPDATE subscriptions SET customer_ref = $2, method_ref = $3, method_label = $4, method_expires = $5 WHERE id = $1',
    [id, method.customerRef, method.methodRef, method.methodLabel, method.methodExpires],
  );
}

/** Whom it is paid through from now on; the method goes with it. */
export async function setAccount(db: Db, id: string, gatewayAccountId: string | null): Promise<void> {
  await run(
    db,
    'UPDATE subscriptions SET gateway_account_id = $2, customer_ref = NULL, method_ref = NULL, method_label = NULL, method_expires = NULL WHERE id = $1',
    [id, gatewayAccountId],
  );
}
