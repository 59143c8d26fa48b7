import type { AccountSection } from '@/core/account-sections';
import { accountSectionsSchema } from '@/core/account-sections-schema';
import type { LocalDate } from '@/core/instants';
import { proseSchema, type Prose } from '@/core/content/prose';
import type { KeyCut } from '@/core/key-cut';
import { keyCutSchema } from '@/core/key-cut-schema';
import { many, maybeOne, prepared, run, type Db } from '@/platform/store/db';
import type { PictureId, TierId } from '@/core/ids';

export type WelcomePlace = 'page' | 'mail' | 'account';
export type Tier = {
  id: TierId;
  name: string;
  description: Prose;
  keyCut: KeyCut;
  ladderId: string | null;
  rung: number | null;
  onJoinPage: boolean;
  position: number;
  /** The owner's own name for it in exports; '' where there is none. */
  reference: string;
  pictureId: PictureId | null;
  joinWords: Prose;
  welcomeWords: Prose;
  welcomeShown: WelcomePlace[];
  /** Where a person is brought after joining; '' for where they came from. */
  welcomePath: string;
  joining: 'open' | 'by-code' | 'closed';
  several: boolean;
  onSaleFrom: LocalDate | null;
  onSaleUntil: LocalDate | null;
  places: number | null;
  /** How what it sells is taxed; null for the first kind. */
  taxKindId: string | null;
  /** The account of those who hold it, where that is arranged in another way than the site's. */
  accountSections: AccountSection[] | null;
  /** Rises with each save. */
  version: number;
  retiredAt: string | null;
};

/** Tiers that replace one another. Days for the wait before a first switch up. */
export type Ladder = {
  id: string;
  name: string;
  position: number;
  creditUnused: boolean;
  waitDays: number;
  downAtOnce: boolean;
};

const JSON_COLUMNS = {
  description: proseSchema,
  joinWords: proseSchema,
  welcomeWords: proseSchema,
  keyCut: keyCutSchema,
  accountSections: accountSectionsSchema,
};

/** Every tier, retired ones too: ladders in their order with the highest rung first, then those on none. */
export async function listTiers(db: Db): Promise<Tier[]> {
  return many(
    db,
    `SELECT t.* FROM tiers t LEFT JOIN ladders l ON l.id = t.ladder_id
     ORDER BY l.position NULLS LAST, t.ladder_id NULLS LAST, t.rung DESC, t.position, t.created_at`,
    [],
    JSON_COLUMNS,
  );
}

const LIST_NAMES = prepared('list-tier-names', 'SELECT id, name FROM tiers');

/** Names of all tiers by id, for sentences that speak of more than one. */
export async function listTierNames(db: Db): Promise<Map<string, string>> {
  const rows = await many<{ id: string; name: string }>(db, LIST_NAMES);
  return new Map(rows.map((row) => [row.id, row.name]));
}

export async function findTier(db: Db, id: string): Promise<Tier | undefined> {
  return maybeOne(db, 'SELECT * FROM tiers WHERE id = $1', [id], JSON_COLUMNS);
}

/** @throws a conflict where the id, the key-cut or the reference is taken */
export async function saveTier(
  db: Db,
  t: Omit<Tier, 'retiredAt' | 'version' | 'taxKindId' | 'accountSections'>,
): Promise<void> {
  await run(
    db,
    `INSERT INTO tiers (id, name, description, key_cut, ladder_id, rung, on_join_page, position, reference, picture_id, join_words,
       welcome_words, welcome_shown, welcome_path, joining, several, on_sale_from, on_sale_until, places)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19)
     ON CONFLICT (id) DO UPDATE SET name = $2, description = $3, key_cut = $4, ladder_id = $5, rung = $6, on_join_page = $7, position = $8,
       reference = $9, picture_id = $10, join_words = $11, welcome_words = $12, welcome_shown = $13, welcome_path = $14, joining = $15,
       several = $16, on_sale_from = $17, on_sale_until = $18, places = $19, version = tiers.version + 1`,
    [
      t.id,
      t.name,
      t.description,
      t.keyCut,
      t.ladderId,
      t.rung,
      t.onJoinPage,
      t.position,
      t.reference,
      t.pictureId,
      t.joinWords,
      t.welcomeWords,
      t.welcomeShown,
      t.welcomePath,
      t.joining,
      t.several,
      t.onSaleFrom,
      t.onSaleUntil,
      t.places,
    ],
  );
}

export async function setAccountSections(
  db: Db,
  tierId: TierId,
  sections: AccountSection[] | null,
): Promise<void> {
  await run(db, 'UPDATE tiers SET account_sections = $2 WHERE id = $1', [
    tierId,
    sections && JSON.stringify(sections),
  ]);
}

export async function setTaxKind(db: Db, tierIds: TierId[], kindId: string | null): Promise<void> {
  await run(db, 'UPDATE tiers SET tax_kind_id = $2 WHERE id = ANY ($1)', [tierIds, kindId]);
}

/** Retires a tier at an instant, or, with null, brings it back. */
export async function setTierRetired(db: Db, id: string, at: string | null): Promise<void> {
  await run(db, 'UPDATE tiers SET retired_at = $2 WHERE id = $1', [id, at]);
}

/** The rungs of a ladder, lowest first; or, for null, the order of tiers on none. */
export async function arrangeTiers(db: Db, ladderId: string | null, ids: string[]): Promise<void> {
  if (ladderId === null) {
    await run(
      db,
      `UPDATE tiers SET position = o.n FROM unnest($1::text[]) WITH ORDINALITY AS o (id, n)
       WHERE tiers.id = o.id AND ladder_id IS NULL`,
      [ids],
    );
    return;
  }
  await run(db, 'SET CONSTRAINTS tiers_rung DEFERRED');
  await run(
    db,
    `UPDATE tiers SET rung = o.n FROM unnest($2::text[]) WITH ORDINALITY AS o (id, n)
     WHERE tiers.id = o.id AND ladder_id = $1`,
    [ladderId, ids],
  );
}

/** @throws a foreign key breach where something still speaks of the tier */
export async function deleteTier(db: Db, id: string): Promise<void> {
  await run(db, 'DELETE FROM offer_versions WHERE offer_id IN (SELECT id FROM offers WHERE tier_id = $1)', [
    id,
  ]);
  await run(db, 'DELETE FROM offers WHERE tier_id = $1', [id]);
  await run(db, 'DELETE FROM tiers WHERE id = $1', [id]);
}

/** Offers of other tiers, in any version, that lead to this one. */
export async function offersLeadingTo(db: Db, id: string): Promise<string[]> {
  const rows = await many<{ name: string }>(
    db,
    `SELECT DISTINCT o.name FROM offers o JOIN offer_versions v ON v.offer_id = o.id
     WHERE o.tier_id <> $1 AND v.definition -> 'steps' @> jsonb_build_array(jsonb_build_object('tier', $1::text))`,
    [id],
  );
  return rows.map((row) => row.name);
}

export async function listLadders(db: Db): Promise<Ladder[]> {
  return many(db, 'SELECT * FROM ladders ORDER BY position, created_at');
}

export async function saveLadder(db: Db, ladder: Ladder): Promise<void> {
  await run(
    db,
    `INSERT INTO ladders (id, name, position, credit_unused, wait_days, down_at_once) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (id) DO UPDATE SET name = $2, position = $3, credit_unused = $4, wait_days = $5, down_at_once = $6`,
    [ladder.id, ladder.name, ladder.position, ladder.creditUnused, ladder.waitDays, ladder.downAtOnce],
  );
}

/** Ladders that have no tier left. */
export async function deleteEmptyLadders(db: Db): Promise<void> {
  await run(db, 'DELETE FROM ladders l WHERE NOT EXISTS (SELECT 1 FROM tiers t WHERE t.ladder_id = l.id)');
}
