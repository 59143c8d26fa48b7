import { z } from 'zod';
import type { Rule } from '@/core/access/rule';
import { ruleSchema } from '@/core/access/rule-schema';
import type { Instant } from '@/core/instants';
import { many, maybeOne, run, type Db } from '@/platform/store/db';
import type { Doorstep } from '@/core/access/doorstep';
import { doorstepSchema } from '@/core/access/doorstep-schema';

/** A rule with its own doorstep, or null where it uses the site's. */
export type StoredRule = Rule & { name: string; on: boolean; doorstep: Doorstep | null; version: number };

type Row = {
  id: string;
  name: string;
  isOn: boolean;
  definition: Omit<Rule, 'id'>;
  doorstep: Doorstep | null;
  version: number;
  updatedAt: Instant;
};

const JSON_COLUMNS = { definition: ruleSchema.omit({ id: true }), doorstep: doorstepSchema };

const fromRow = (row: Row): StoredRule => ({
  ...row.definition,
  id: row.id,
  name: row.name,
  on: row.isOn,
  doorstep: row.doorstep,
  version: row.version,
});

export async function listRules(db: Db): Promise<StoredRule[]> {
  return (await many<Row>(db, 'SELECT * FROM rules ORDER BY created_at, id', [], JSON_COLUMNS)).map(fromRow);
}

export async function findRule(db: Db, id: string): Promise<StoredRule | undefined> {
  const row = await maybeOne<Row>(db, 'SELECT * FROM rules WHERE id = $1', [id], JSON_COLUMNS);
  return row && fromRow(row);
}

/** Adds a rule, or replaces it if it has not changed since `rule.version`. False if it has. */
export async function saveRule(db: Db, rule: StoredRule): Promise<boolean> {
  const { id, name, on, doorstep, version, places: _, ...definition } = rule;
  const changed = await run(
    db,
    `INSERT INTO rules (id, name, is_on, definition, doorstep) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (id) DO UPDATE SET name = $2, is_on = $3, definition = $4, doorstep = $5, version = rules.version + 1, updated_at = now()
     WHERE rules.version = $6`,
    [id, name, on, definition, doorstep, version],
  );
  return changed === 1;
}

export async function deleteRule(db: Db, id: string): Promise<boolean> {
  return (await run(db, 'DELETE FROM rules WHERE id = $1', [id])) === 1;
}

/** The newest entry of the audit about each rule that was deleted and is not there now, the latest first. */
export async function listDeletedRules(
  db: Db,
  limit: number,
): Promise<{ entry: bigint; id: string; at: Instant; before: Record<string, unknown> }[]> {
  return many(
    db,
    `SELECT entry, id, at, before FROM (
       SELECT DISTINCT ON (a.subject) a.id AS entry, substr(a.subject, 6) AS id, a.at, a.detail -> 'before' AS before
       FROM audit a WHERE a.action = 'rule deleted' AND a.subject LIKE 'rule:%'
         AND NOT EXISTS (SELECT 1 FROM rules r WHERE a.subject = 'rule:' || r.id)
       ORDER BY a.subject, a.id DESC) gone
     ORDER BY entry DESC LIMIT $1`,
    [limit],
    { before: z.record(z.string(), z.unknown()) },
  );
}
