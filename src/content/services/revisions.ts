import { WRITES } from '@/core/staff';
import { diffWords } from 'diff';
import { z } from 'zod';
import { plainText } from '@/core/content/prose';
import { findItem } from '@/content/store/items';
import { saveItem } from '@/content/store/save-items';
import { addRevision, findRevision, listRevisions, type Revision } from '@/content/store/revisions';
import { findMember } from '@/people/store/members';
import { pool } from '@/platform/store/db';
import { siteNow } from '@/platform/clock';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { missing, refusedField } from '@/platform/result';
import { slug } from '@/platform/inputs';
import { requirePublishing, requireWriting } from './lib/may-write';
import { searchLanguageOf } from './lib/search-language';

const versionSchema = z.object({ id: slug, version: z.coerce.number().int().min(1) });

/** A stretch of text: in both versions, or only in the newer or the older one. */
export type Stretch = { words: string; is: 'same' | 'added' | 'removed' };
export type RevisionLine = Omit<Revision, 'body' | 'savedBy'> & { by: string };

/** The versions of an item, newest first; with one of them beside the present one, where that is asked for. */
export const itemRevisions = staffUse(...WRITES)(
  'item-revisions',
  z.object({ id: slug, version: z.coerce.number().int().min(1).optional() }),
  async (actor, { id, version }) => {
    const item = await findItem(pool(), id);
    if (!item) return missing();
    requireWriting(await powersOf(actor), item);
    const lines = await listRevisions(pool(), id);
    const names = new Map<string, string>();
    for (const memberId of new Set(lines.map(({ savedBy }) => savedBy)))
      if (memberId) names.set(memberId, (await findMember(pool(), memberId))?.name ?? '');
    const old = version ? await findRevision(pool(), id, version) : undefined;
    return done({
      item: { id, title: item.title, path: item.path, version: item.version },
      revisions: lines.map(({ savedBy, ...line }): RevisionLine => ({
        ...line,
        by: names.get(savedBy ?? '') ?? '',
      })),
      compared: old && {
        version: old.version,
        title: stretches(old.title, item.title),
        summary: stretches(old.summary, item.summary),
        body: stretches(plainText(old.body), plainText(item.body)),
      },
    });
  },
);

/** How much text is compared word by word: more than a long article, and still an instant's work. */
const MOST_COMPARED = 200_000;

const stretches = (older: string, newer: string): Stretch[] =>
  diffWords(older.slice(0, MOST_COMPARED), newer.slice(0, MOST_COMPARED), { timeout: 2000 })?.map(
    ({ value, added, removed }) => ({ words: value, is: added ? 'added' : removed ? 'removed' : 'same' }),
  ) ?? [
    { words: older, is: 'removed' },
    { words: newer, is: 'added' },
  ];

/** Makes an item say again what it said at a version, as a new version. Who may read it, and when it is out, stay as they are. */
export const restoreRevision = staffUse(...WRITES)(
  'restore-revision',
  versionSchema,
  async (actor, { id, version }): Promise<Result<{ id: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      await lock(db, 'items');
      const item = await findItem(db, id);
      const old = await findRevision(db, id, version);
      if (!item || !old) return missing();
      requireWriting(powers, item);
      requirePublishing(powers, item.publishedAt !== null);
      if (item.trashedAt) return refusedField('', 'item.trashed');
      const { title, summary, body, author } = old;
      await saveItem(
        db,
        { ...item, categories: item.ownCategories, title, summary, body, author },
        searchLanguageOf(site),
      );
      await addRevision(db, id, actor.memberId, at);
      await record(db, actor, at, 'item changed', `item:${id}`, { restored: version });
      return done({ id });
    });
  },
);
