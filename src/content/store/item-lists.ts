import type { ItemState } from '@/core/content/item';
import type { Instant } from '@/core/instants';
import { many, one, type Db } from '@/platform/store/db';
import { HEAD, listManyHeads, type ItemHead } from './items';

export type Page = { limit: number; offset: number };
/** More than this are read as a long list. */
const A_PAGE = 300;
const headsOf = (db: Db, rest: string, values: unknown[], limit: number): Promise<ItemHead[]> =>
  limit > A_PAGE ? listManyHeads(db, rest, values) : many(db, `SELECT ${HEAD} ${rest}`, values);
const ALL: Page = { limit: 1_000_000, offset: 0 };

export type PublishedFilter = {
  type?: string;
  /** Not of these kinds. */
  except?: string[];
  /** In it, or in a category below it. */
  category?: string;
  tag?: string;
  /** Published from the first instant to before the second. */
  between?: [Instant, Instant];
  /** The ids of items that the one who asks is not to know of. */
  hidden?: string[];
};

const IN_CATEGORY = (parameter: string): string => `i.id IN (
  WITH RECURSIVE down AS (SELECT ${parameter}::text AS id UNION SELECT c.id FROM categories c JOIN down ON c.parent_id = down.id)
  SELECT item_id FROM item_categories JOIN down ON category_id = down.id)`;

const PUBLISHED = `i.trashed_at IS NULL AND i.published_at <= $1
  AND ($2::text IS NULL OR i.type = $2)
  AND ($3::text[] IS NULL OR NOT i.type = ANY ($3))
  AND ($4::text IS NULL OR ${IN_CATEGORY('$4')})
  AND ($5::text IS NULL OR i.tags @> ARRAY[$5])
  AND ($6::timestamptz IS NULL OR (i.published_at >= $6 AND i.published_at < $7))
  AND NOT i.id = ANY ($8)`;
const publishedValues = (at: Instant, filter: PublishedFilter): unknown[] => [
  at,
  filter.type ?? null,
  filter.except ?? null,
  filter.category ?? null,
  filter.tag ?? null,
  ...(filter.between ?? [null, null]),
  filter.hidden ?? [],
];

/** Items that are published by the site's clock `at`, newest first. */
export async function listPublished(
  db: Db,
  at: Instant,
  filter: PublishedFilter = {},
  { limit, offset } = ALL,
): Promise<ItemHead[]> {
  const rest = `FROM items i WHERE ${PUBLISHED} ORDER BY i.published_at DESC, i.id LIMIT $9 OFFSET $10`;
  return headsOf(db, rest, [...publishedValues(at, filter), limit, offset], limit);
}

export async function countPublished(db: Db, at: Instant, filter: PublishedFilter = {}): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM items i WHERE ${PUBLISHED}`,
    publishedValues(at, filter),
  );
  return Number(count);
}

/** When items were published, from one instant until before another. */
export async function listPublishTimes(db: Db, from: Instant, to: Instant): Promise<Instant[]> {
  const rows = await many<{ publishedAt: Instant }>(
    db,
    `SELECT DISTINCT published_at FROM items WHERE trashed_at IS NULL AND published_at >= $1 AND published_at < $2`,
    [from, to],
  );
  return rows.map(({ publishedAt }) => publishedAt);
}

/** The months in which items came out, newest first, as "2026-11" in the site's zone, with how many. */
export async function listMonths(
  db: Db,
  at: Instant,
  { zone, type, hidden }: { zone: string; type: string; hidden: string[] },
): Promise<{ month: string; items: number }[]> {
  const rows = await many<{ month: string; items: bigint }>(
    db,
    `SELECT to_char(published_at AT TIME ZONE $2, 'YYYY-MM') AS month, count(*) AS items FROM items
     WHERE trashed_at IS NULL AND type = $3 AND published_at <= $1 AND NOT id = ANY ($4) GROUP BY 1 ORDER BY 1 DESC`,
    [at, zone, type, hidden],
  );
  return rows.map(({ month, items }) => ({ month, items: Number(items) }));
}

/** In which of its parts an item has the words that are searched for. */
export type Found = ItemHead & { inTitle: boolean; inSummary: boolean; inBody: boolean };

/**
 * Published items that have all words of a search, best first; in the title, the summary, or what of the text is no
 * section. Which of these parts a person may know of is for the caller to say.
 */
export async function findByWords(
  db: Db,
  at: Instant,
  { words, searchLanguage, hidden }: { words: string; searchLanguage: string; hidden: string[] },
  { limit, offset }: Page,
): Promise<Found[]> {
  return many(
    db,
    `SELECT ${HEAD}, i.title_words @@ q AS in_title, (i.title_words || i.summary_words) @@ q AS in_summary,
       (i.title_words || i.summary_words || i.body_words) @@ q AS in_body
     FROM items i, websearch_to_tsquery($5::text::regconfig, $2) q
     WHERE i.trashed_at IS NULL AND i.published_at <= $1 AND (i.title_words || i.summary_words || i.body_words) @@ q
       AND NOT i.id = ANY ($6)
     ORDER BY ts_rank(setweight(i.title_words, 'A') || setweight(i.summary_words, 'B') || i.body_words, q) DESC, i.published_at DESC, i.id
     LIMIT $3 OFFSET $4`,
    [at, words, limit, offset, searchLanguage, hidden],
  );
}

/** What is typed to be found, as a pattern; null where nothing is. */
const like = (search: string | undefined): string | null =>
  search ? `%${search.replace(/[\\%_]/g, '\\$&')}%` : null;

export type DeskFilter = {
  search?: string;
  type?: string;
  state?: ItemState;
  category?: string;
  tag?: string;
  author?: string;
  /** Scheduled from the first instant to before the second. */
  between?: [Instant, Instant];
  /** The ids of those that are left out. */
  without?: string[];
};

const STATES: Record<ItemState, string> = {
  draft: 'i.trashed_at IS NULL AND i.published_at IS NULL AND i.was_published_at IS NULL',
  unpublished: 'i.trashed_at IS NULL AND i.published_at IS NULL AND i.was_published_at IS NOT NULL',
  scheduled: 'i.trashed_at IS NULL AND i.published_at > $1',
  published: 'i.trashed_at IS NULL AND i.published_at <= $1',
  trashed: 'i.trashed_at IS NOT NULL',
};

const deskWhere = ({
  state,
}: DeskFilter): string => `${state ? STATES[state] : 'i.trashed_at IS NULL'} AND $1::timestamptz IS NOT NULL
  AND ($2::text IS NULL OR i.title ILIKE $2 OR i.path ILIKE $2)
  AND ($3::text IS NULL OR i.type = $3)
  AND ($4::text IS NULL OR ${IN_CATEGORY('$4')})
  AND ($5::text IS NULL OR i.tags @> ARRAY[$5])
  AND ($6::text IS NULL OR i.author = $6)
  AND ($7::timestamptz IS NULL OR (i.published_at >= $7 AND i.published_at < $8))
  AND i.id <> ALL($9)
`;
const deskValues = (at: Instant, f: DeskFilter): unknown[] => [
  at,
  like(f.search),
  f.type ?? null,
  f.category ?? null,
  f.tag ?? null,
  f.author ?? null,
  ...(f.between ?? [null, null]),
  f.without ?? [],
];

/** Items as the Desk lists them, by the site's clock `at`: drafts first, then newest first. */
export async function listForDesk(
  db: Db,
  at: Instant,
  filter: DeskFilter,
  { limit, offset } = ALL,
): Promise<ItemHead[]> {
  const rest = `FROM items i WHERE ${deskWhere(filter)}
     ORDER BY i.published_at DESC NULLS FIRST, i.updated_at DESC, i.id LIMIT $10 OFFSET $11`;
  return headsOf(db, rest, [...deskValues(at, filter), limit, offset], limit);
}

export async function countForDesk(db: Db, at: Instant, filter: DeskFilter): Promise<number> {
  const { count } = await one<{ count: bigint }>(
    db,
    `SELECT count(*) FROM items i WHERE ${deskWhere(filter)}`,
    deskValues(at, filter),
  );
  return Number(count);
}

/** The authors that items name. */
export async function listAuthors(db: Db): Promise<string[]> {
  const rows = await many<{ author: string }>(
    db,
    `SELECT DISTINCT author FROM items WHERE author <> '' AND trashed_at IS NULL ORDER BY author LIMIT 500`,
  );
  return rows.map(({ author }) => author);
}

/** When the items come out that are scheduled after the site's clock `at`, the next first; up to ten thousand. */
export async function listScheduled(db: Db, at: Instant): Promise<Instant[]> {
  const rows = await many<{ publishedAt: Instant }>(
    db,
    'SELECT published_at FROM items WHERE trashed_at IS NULL AND published_at > $1 ORDER BY 1 LIMIT 10000',
    [at],
  );
  return rows.map(({ publishedAt }) => publishedAt);
}

/** What is sought in titles and addresses, and the ids of the items that are left out. */
export type Sought = { search: string; without: string[] };
/** A group of items: those of one category, or those of one kind without a category. */
export type Group = { category: string } | { type: string };
export type GroupCount = { category: string | null; type: string | null; count: number };

const OF_GROUP = `i.trashed_at IS NULL AND i.published_at <= $1
  AND ($2::text IS NULL OR EXISTS (SELECT FROM item_categories c WHERE c.item_id = i.id AND c.category_id = $2))
  AND ($3::text IS NULL OR (i.type = $3 AND NOT EXISTS (SELECT FROM item_categories c WHERE c.item_id = i.id)))
  AND ($4::text IS NULL OR i.title ILIKE $4 OR i.path ILIKE $4)
  AND i.id <> ALL($5)`;
const groupValues = (at: Instant, group: Group, { search, without }: Sought): unknown[] => [
  at,
  'category' in group ? group.category : null,
  'type' in group ? group.type : null,
  like(search),
  without,
];

/** The published items of a group whose title or address has the words: pages by address, so that children follow their parent, others newest first. */
export async function listGroup(
  db: Db,
  at: Instant,
  { group, limit, offset, ...sought }: Page & Sought & { group: Group },
): Promise<ItemHead[]> {
  const order = 'type' in group && group.type === 'page' ? 'i.path' : 'i.published_at DESC, i.id';
  return many(db, `SELECT ${HEAD} FROM items i WHERE ${OF_GROUP} ORDER BY ${order} LIMIT $6 OFFSET $7`, [
    ...groupValues(at, group, sought),
    limit,
    offset,
  ]);
}

/** How many published items each group has whose title or address has the words. */
export async function countGroups(db: Db, at: Instant, { search, without }: Sought): Promise<GroupCount[]> {
  const rows = await many<Omit<GroupCount, 'count'> & { count: bigint }>(
    db,
    `WITH found AS NOT MATERIALIZED (SELECT i.id, i.type FROM items i WHERE i.trashed_at IS NULL AND i.published_at <= $1
         AND ($2::text IS NULL OR i.title ILIKE $2 OR i.path ILIKE $2) AND i.id <> ALL($3))
     SELECT c.category_id AS category, NULL AS type, count(*) FROM item_categories c JOIN found ON found.id = c.item_id GROUP BY 1
     UNION ALL
     SELECT NULL, type, count(*) FROM found WHERE NOT EXISTS (SELECT FROM item_categories c WHERE c.item_id = found.id) GROUP BY type`,
    [at, like(search), without],
  );
  return rows.map(({ count, ...group }) => ({ ...group, count: Number(count) }));
}
