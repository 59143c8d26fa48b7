import type { LocalDate } from '@/core/instants';
import { many, maybeOne, run, type Db } from '@/platform/store/db';
import type { TierId } from '@/core/ids';

/** A word that admits to joining a tier. Kept in lower case; capitals do not count. */
export type JoiningCode = {
  id: string;
  tierId: TierId;
  code: string;
  mostUses: number | null;
  lastDay: LocalDate | null;
};

const CODE = `
  SELECT c.id, c.tier_id, c.code, c.most_uses, c.last_day FROM joining_codes c`;

export async function listJoiningCodes(db: Db, tierId: TierId): Promise<JoiningCode[]> {
  return many(db, `${CODE} WHERE c.tier_id = $1 ORDER BY c.created_at`, [tierId]);
}

export async function findJoiningCode(
  db: Db,
  tierId: TierId,
  code: string,
): Promise<JoiningCode | undefined> {
  return maybeOne(db, `${CODE} WHERE c.tier_id = $1 AND c.code = lower($2)`, [tierId, code]);
}

/** @throws a conflict where the tier has this code already */
export async function insertJoiningCode(db: Db, c: Omit<JoiningCode, 'id'>): Promise<void> {
  await run(
    db,
    'INSERT INTO joining_codes (tier_id, code, most_uses, last_day) VALUES ($1, lower($2), $3, $4)',
    [c.tierId, c.code, c.mostUses, c.lastDay],
  );
}

export async function deleteJoiningCode(db: Db, tierId: TierId, id: string): Promise<void> {
  await run(db, 'DELETE FROM joining_codes WHERE tier_id = $1 AND id = $2', [tierId, id]);
}

/** The words of a code by its id; '' where it is gone. */
export async function findCodeWords(db: Db, id: string): Promise<string> {
  return (
    (await maybeOne<{ code: string }>(db, 'SELECT code FROM joining_codes WHERE id = $1', [id]))?.code ?? ''
  );
}
