import type { TierId } from '@/core/ids';
import type { Instant, LocalDate } from '@/core/instants';
import { codeTermsSchema, type CodeTerms } from '@/core/tiers/codes';
import { many, maybeOne, one, run, type Db, type Transaction } from '@/platform/store/db';

/** A code, or a whole batch of codes that do the same. `codes`: how many there are. */
export type CodeBatch = CodeTerms & {
  id: string;
  /** What the Desk calls it; of a single code, the code itself. */
  name: string;
  codes: number;
  version: number;
  createdAt: Instant;
};
/** One code, with what it does. */
export type Code = CodeTerms & {
  id: string;
  batchId: string;
  word: string;
  /** Of an invitation: the address of the one person for whom it is. */
  email: string | null;
};

const TERMS = `b.admits, b.discount, b.currency, b.tier_ids, b.gives, b.most_uses, b.most_per_person, b.first_day, b.last_day, b.new_members_only, b.is_on`;
const { discount, gives } = codeTermsSchema.shape;
const JSON_COLUMNS = { discount: discount.unwrap(), gives: gives.unwrap() };
const BATCH = `SELECT b.id, b.name, ${TERMS}, b.version, b.created_at, (SELECT count(*)::integer FROM codes c WHERE c.batch_id = b.id) AS codes FROM code_batches b`;

export async function listBatches(db: Db): Promise<CodeBatch[]> {
  return many(db, `${BATCH} ORDER BY b.created_at DESC, b.id`, [], JSON_COLUMNS);
}

/** Codes that admit to joining a tier, with their words; batches of several under the name of the batch. */
export async function listBatchesAdmitting(db: Db, tierId: TierId): Promise<CodeBatch[]> {
  return many(db, `${BATCH} WHERE $1 = ANY (b.admits) ORDER BY b.created_at, b.id`, [tierId], JSON_COLUMNS);
}

export async function findBatch(db: Db, id: string): Promise<CodeBatch | undefined> {
  return maybeOne(db, `${BATCH} WHERE b.id = $1`, [id], JSON_COLUMNS);
}

/** A code by its word; capitals and spaces around it do not count. */
export async function findCode(db: Db, word: string): Promise<Code | undefined> {
  return maybeOne(
    db,
    `SELECT c.id, c.batch_id, c.word, c.email, ${TERMS} FROM codes c JOIN code_batches b ON b.id = c.batch_id WHERE c.word = lower(trim($1))`,
    [word],
    JSON_COLUMNS,
  );
}

/** Locks a code, and what its batch may do, until the transaction ends: its last use goes to one person. */
export async function lockCode(db: Transaction, id: string): Promise<Code | undefined> {
  return maybeOne(
    db,
    `SELECT c.id, c.batch_id, c.word, c.email, ${TERMS} FROM codes c JOIN code_batches b ON b.id = c.batch_id WHERE c.id = $1 FOR UPDATE`,
    [id],
    JSON_COLUMNS,
  );
}

/** The word of a code by its id; '' where it is gone. */
export async function findCodeWord(db: Db, id: string): Promise<string> {
  const row = await maybeOne<{ word: string }>(db, 'SELECT word FROM codes WHERE id = $1', [id]);
  return row?.word ?? '';
}

/** Whether any code that is on today takes something off a tier. */
export async function hasDiscountsFor(db: Db, tierId: TierId, today: LocalDate): Promise<boolean> {
  const row = await maybeOne(
    db,
    `SELECT 1 FROM code_batches WHERE is_on AND discount IS NOT NULL AND (tier_ids = '{}' OR $1 = ANY (tier_ids)) AND (last_day IS NULL OR last_day >= $2) LIMIT 1`,
    [tierId, today],
  );
  return row !== undefined;
}

const values = (terms: CodeTerms): unknown[] => [
  terms.admits,
  terms.discount,
  terms.currency,
  terms.tierIds,
  terms.gives,
  terms.mostUses,
  terms.mostPerPerson,
  terms.firstDay,
  terms.lastDay,
  terms.newMembersOnly,
  terms.isOn,
];

/** Adds a batch, without codes yet. `given`: the id that it is to have. @returns its id */
export async function insertBatch(
  db: Db,
  name: string,
  terms: CodeTerms,
  given: string | null = null,
): Promise<string> {
  const { id } = await one<{ id: string }>(
    db,
    `INSERT INTO code_batches (name, admits, discount, currency, tier_ids, gives, most_uses, most_per_person, first_day, last_day, new_members_only, is_on, id)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, coalesce($13::uuid, gen_random_uuid())) RETURNING id`,
    [name, ...values(terms), given],
  );
  return id;
}

/** Changes what a batch does, if nobody has since `version`. False if they have. */
export async function updateBatch(
  db: Db,
  id: string,
  version: number,
  name: string,
  terms: CodeTerms,
): Promise<boolean> {
  const changed = await run(
    db,
    `UPDATE code_batches SET name = $3, admits = $4, discount = $5, currency = $6, tier_ids = $7, gives = $8, most_uses = $9, most_per_person = $10,
       first_day = $11, last_day = $12, new_members_only = $13, is_on = $14, version = version + 1 WHERE id = $1 AND version = $2`,
    [id, version, name, ...values(terms)],
  );
  return changed === 1;
}

/** Turns a batch on or off. @returns whether it is there */
export async function setBatchOn(db: Db, id: string, isOn: boolean): Promise<boolean> {
  return (
    (await run(db, 'UPDATE code_batches SET is_on = $2, version = version + 1 WHERE id = $1', [id, isOn])) ===
    1
  );
}

/** Adds codes to a batch; words that exist already, anywhere, are left out. @returns how many were added */
export async function insertCodes(db: Db, batchId: string, words: string[]): Promise<number> {
  return run(
    db,
    'INSERT INTO codes (batch_id, word) SELECT $1, lower(w) FROM unnest($2::text[]) w ON CONFLICT (word) DO NOTHING',
    [batchId, words],
  );
}

/** Adds codes to a batch that are good for one person each. */
export async function insertInvitations(
  db: Db,
  batchId: string,
  invited: { word: string; email: string }[],
): Promise<void> {
  await run(
    db,
    'INSERT INTO codes (batch_id, word, email) SELECT $1, lower(w), e FROM unnest($2::text[], $3::text[]) i (w, e)',
    [batchId, invited.map(({ word }) => word), invited.map(({ email }) => email)],
  );
}

/** The codes of a batch, in the order in which they were added. */
export async function listCodes(
  db: Db,
  batchId: string,
  limit: number,
): Promise<{ id: string; word: string }[]> {
  return many(db, 'SELECT id, word FROM codes WHERE batch_id = $1 ORDER BY created_at, word LIMIT $2', [
    batchId,
    limit,
  ]);
}

/** Deletes a batch with its codes. */
export async function deleteBatch(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM code_batches WHERE id = $1', [id])) === 1;
}
