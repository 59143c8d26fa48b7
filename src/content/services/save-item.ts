import { WRITES } from '@/core/staff';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { isSafeHref } from '@/core/addresses';
import { itemPath, LINK, PAGE } from '@/core/content/item';
import { articleSchema, EMPTY_PROSE } from '@/core/content/prose';
import type { Instant } from '@/core/instants';
import { isConflict, lock, transaction } from '@/platform/store/db';
import { findHead, findItem, findItemByPath, lastPosition, type Item } from '@/content/store/items';
import { dropTakenRedirects, saveItem as store } from '@/content/store/save-items';
import { listCategories } from '@/content/store/categories';
import { deleteDraft } from '@/content/store/drafts';
import { listKinds, type Kind } from '@/content/store/kinds';
import { addRevision } from '@/content/store/revisions';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { given } from '@/platform/absent';
import { chosenId, idIfKnown, seenVersion, instantSchema } from '@/platform/form-fields';
import { slug } from '@/platform/inputs';
import { say } from '@/words/problems';
import { followMove, isOfKind, isReserved } from './lib/addresses';
import { requirePublishing, requireWriting } from './lib/may-write';
import { tagIds } from './lib/tag-ids';
import { withParents } from '@/core/content/categories';
import { searchLanguageOf } from './lib/search-language';

const itemInputSchema = z.object({
  id: idIfKnown,
  type: slug,
  title: z.string().trim().min(1, say('item.no-title')).max(200),
  slug: z.string().trim().max(80).optional(),
  parentId: chosenId,
  summary: z.string().trim().max(400).optional(),
  body: articleSchema.optional(),
  /** Where a link leads. */
  target: z
    .string()
    .trim()
    .max(2000)
    .nullish()
    .transform((target) => target ?? undefined),
  author: z.string().trim().max(80).optional(),
  /** Tags by name; those that are not there yet are made. */
  tags: z.array(z.string().trim().min(1).max(60)).max(30).optional(),
  categories: z.array(z.string().max(200)).max(20).optional(),
  pictureId: z.preprocess((typed) => (typed === '' ? null : typed), z.uuid().nullable().optional()),
  pictureAlt: z.string().trim().max(400).optional(),
  /** Whether it is the front page, which people see first. */
  isFront: z.boolean().optional(),
  /** Whether it has comments; null: as its kind. */
  commentsOn: z.boolean().nullable().optional(),
  position: z.number().int().optional(),
  /** `draft` (or withdrawn, where it was out), `publish` (now, unless it is out already), or the instant of publishing. */
  publish: z.union([z.literal('draft'), z.literal('publish'), z.object({ at: instantSchema })]),
  /** When it was last out, for one that is brought in unpublished. */
  wasPublishedAt: instantSchema.nullish().transform((at) => at ?? undefined),
  /** The version that was opened, where an existing item is changed. */
  version: seenVersion,
});

/** What a new item has where nothing else was said. What exists keeps what it was. */
const NEW_ITEM = {
  parentId: null,
  summary: '',
  body: EMPTY_PROSE,
  author: '',
  tags: [],
  categories: [],
  pictureId: null,
  pictureAlt: '',
  target: '',
  commentsOn: null,
  position: 0,
};

/** Writes an item. An address follows from its parent or kind and the slug, and the addresses below it follow along. */
export const saveItem = staffUse(...WRITES)(
  'save-item',
  itemInputSchema,
  async (actor, raw): Promise<Result<{ id: string; path: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const powers = await powersOf(actor);
    try {
      return await transaction(async (db) => {
        // Addresses depend on one another, and a version is compared with what nobody else is changing.
        await lock(db, 'items');
        const known = raw.id ? await findItem(db, raw.id) : undefined;
        if (known?.trashedAt) return refusedField('', 'item.trashed');
        const before = known && {
          ...known,
          categories: known.ownCategories,
          target: known.target ?? '',
        };
        const input = { ...NEW_ITEM, ...before, ...given(raw), slug: raw.slug ?? slugOf(known) };
        if (raw.version !== undefined && known && known.version !== raw.version)
          return refusedField('', 'item.saved-elsewhere');
        const kinds = await listKinds(db);
        const kind = kinds.find(({ id }) => id === input.type);
        if (!kind || (known && known.type !== input.type)) return refusedField('type', 'item.no-kind');
        requireWriting(powers, ...(known ? [known] : []), {
          ...input,
          categories: withParents(await listCategories(db), input.categories),
        });
        if (kind.id === LINK && !isSafeHref(input.target)) return refusedField('target', 'item.no-target');
        const parent = input.parentId ? await findHead(db, input.parentId) : undefined;
        if (input.parentId && (!parent || parent.trashedAt))
          return refusedField('parentId', 'item.parent-gone');
        if (known && parent && (parent.id === known.id || parent.ancestors.includes(known.id)))
          return refusedField('parentId', 'item.own-parent');
        const isFront = raw.type === PAGE && (raw.isFront ?? (raw.slug === undefined && known?.path === '/'));
        const front = isFront ? await findItemByPath(db, '/') : undefined;
        if (front && front.id !== known?.id)
          return refusedField('isFront', 'item.front-taken', { title: front.title });
        const path = isFront ? '/' : pathFor(input, kind, parent?.path ?? '');
        if (path === null || isReserved(path) || isOfKind(kinds, path, kind.id))
          return refusedField('slug', 'item.reserved');
        const publishedAt = published(input.publish, known, at);
        requirePublishing(powers, publishedAt !== null || (known?.publishedAt ?? null) !== null);
        const id = known?.id ?? input.id ?? randomUUID();
        // A new page below another is the last there, as a lesson follows the ones before.
        const isAppended = kind.id === PAGE && parent && !known && raw.position === undefined;
        const position = isAppended ? await lastPosition(db, parent.id) : input.position;
        if (known && known.path !== path) await followMove(db, known, path);
        await store(
          db,
          {
            ...input,
            id,
            path,
            publishedAt,
            position,
            parentId: kind.id === PAGE ? input.parentId : null,
            target: kind.id === LINK ? input.target : null,
            tags: raw.tags ? await tagIds(db, raw.tags) : input.tags,
            wasPublishedAt: known?.publishedAt ?? known?.wasPublishedAt ?? raw.wasPublishedAt ?? null,
          },
          searchLanguageOf(site),
        );
        await dropTakenRedirects(db);
        await addRevision(db, id, actor.memberId, at);
        if (actor.memberId) await deleteDraft(db, actor.memberId, known ? id : `new:${kind.id}`);
        await record(db, actor, at, known ? 'item changed' : 'item made', `item:${id}`, {
          path,
          published: publishedAt !== null,
        });
        return done({ id, path });
      });
    } catch (error) {
      if (isConflict(error)) return refusedField('slug', 'item.taken');
      throw error;
    }
  },
);

/** The last part of an item's address; '' for one that has none yet. */
const slugOf = (item: Item | undefined): string => item?.path.split('/').at(-1) ?? '';

function published(
  publish: z.output<typeof itemInputSchema>['publish'],
  known: Item | undefined,
  at: Instant,
): Instant | null {
  if (typeof publish === 'object') return publish.at;
  return publish === 'draft' ? null : (known?.publishedAt ?? at);
}

function pathFor(
  { slug: typed, title }: { slug: string; title: string },
  kind: Kind,
  parentPath: string,
): string | null {
  // An imported page says by its slug that it is the front page.
  if (kind.id === PAGE && typed === '/') return '/';
  return itemPath(kind.id, kind.path ?? parentPath, typed || title);
}
