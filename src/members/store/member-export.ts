import { z } from 'zod';
import { readInstant } from '@/core/calendar';
import type { Instant } from '@/core/instants';
import { heldAt, passHeldAt } from '@/billing/store/holdings';
import { theirs } from '@/members/store/member-lists';
import { many, type Db } from '@/platform/store/db';

const instant = z.string().transform(readInstant);
const heldSchema = z.array(
  z.object({ tier: z.string(), why: z.string(), since: instant, until: instant.nullable() }),
);
const answersSchema = z.array(z.object({ question: z.string(), answer: z.string() }));

/** What is exported of a member. Tiers, groups and passes by their names. */
export type ExportedMember = {
  id: string;
  email: string;
  name: string;
  country: string;
  confirmedAt: Instant | null;
  seenAt: Instant | null;
  held: z.output<typeof heldSchema>;
  state: string | null;
  groups: string[];
  passes: string[];
  notes: string[];
  answers: z.output<typeof answersSchema>;
};

/**
 * What is exported of some members, by their ids: what they hold at an instant, and what staff know of them. `hasAnswers`: with
 * what they answered when they joined.
 */
export async function listForExport(
  db: Db,
  mode: string,
  at: Instant,
  ids: string[],
  hasAnswers: boolean,
): Promise<Map<string, ExportedMember>> {
  const rows = await many<ExportedMember>(
    db,
    `SELECT m.id, m.email, m.name, m.country, m.email_confirmed_at AS confirmed_at, m.seen_at,
       coalesce((SELECT json_agg(json_build_object('tier', t.name, 'why', h.why, 'since', h.since_at, 'until', h.until_at) ORDER BY h.from_at)
         FROM holdings h JOIN tiers t ON t.id = h.tier_id WHERE h.member_id = m.id AND ${heldAt('h', '$2', '$3')}), '[]') AS held,
       (SELECT s.state FROM (${theirs('$2')}) s) AS state,
       coalesce((SELECT array_agg(g.name ORDER BY g.name) FROM group_members x JOIN groups g ON g.id = x.group_id WHERE x.member_id = m.id), '{}') AS groups,
       coalesce((SELECT array_agg(DISTINCT p.name) FROM held_passes x JOIN passes p ON p.id = x.pass_id WHERE x.member_id = m.id AND ${passHeldAt('x', '$2', '$3')}), '{}') AS passes,
       coalesce((SELECT array_agg(n.words ORDER BY n.at) FROM member_notes n WHERE n.member_id = m.id), '{}') AS notes,
       coalesce(CASE WHEN $4 THEN (SELECT json_agg(json_build_object('question', a ->> 'label', 'answer', a ->> 'value') ORDER BY k.at) FROM checkouts k, jsonb_array_elements(k.answers) a
         WHERE k.member_id = m.id AND k.state = 'done' AND k.answers <> '[]') END, '[]') AS answers
     FROM members m WHERE m.id = ANY ($1::uuid[])`,
    [ids, mode, at, hasAnswers],
    { held: heldSchema, answers: answersSchema },
  );
  return new Map(rows.map((row) => [row.id, row]));
}
