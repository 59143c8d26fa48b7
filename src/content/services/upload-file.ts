import { z } from 'zod';
import { WRITES } from '@/core/staff';
import { fileSlug, freePath, FILE } from '@/core/content/item';
import { EMPTY_PROSE } from '@/core/content/prose';
import { mediaTypeOf } from '@/core/content/media';
import { MOST_FILE_BYTES, PIECE_BYTES } from '@/core/upload-bounds';
import { beginFile, findUpload, giveFile, putPiece } from '@/content/store/files';
import { findHead, listItems } from '@/content/store/items';
import { saveItem } from '@/content/store/save-items';
import { addRevision } from '@/content/store/revisions';
import { siteNow } from '@/platform/clock';
import { uuid } from '@/platform/inputs';
import { chosenId } from '@/platform/form-fields';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { lock, pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { requirePublishing, requireWriting } from './lib/may-write';
import { wholeOf } from './lib/whole-file';
import { searchLanguageOf } from './lib/search-language';

const nameSchema = z.string().trim().min(1).max(200);

/** Begins the upload of a file; its bytes follow in pieces. The answer is the id of the upload. */
export const beginUpload = staffUse(...WRITES)(
  'begin-upload',
  // What is only read, by an import, may be of a kind that is never served.
  z.object({ name: nameSchema, size: z.number().int().min(0), isImport: z.boolean().default(false) }),
  async (_, { name, size, isImport }): Promise<Result<{ id: string }>> => {
    if (size > MOST_FILE_BYTES) return refusedField('', 'file.too-large');
    // What cannot be kept at all is said before anything is sent.
    if (!isImport && FORMLESS.test(name)) return refusedField('', 'file.unknown-kind');
    return done({ id: await beginFile(pool(), name) });
  },
);

/** Names that say of themselves that a computer or a browser would run them. */
const FORMLESS = /\.(html?|xhtml|svg|xml|js|mjs|exe|bat|cmd|sh|com|scr|msi|jar|php|swf)$/i;

const pieceSchema = z.object({
  id: uuid,
  number: z
    .number()
    .int()
    .min(0)
    .max(Math.ceil(MOST_FILE_BYTES / PIECE_BYTES)),
  bytes: z.instanceof(Uint8Array),
});

/** Takes a piece of an upload; the same piece may be sent again. */
export const takePiece = staffUse(...WRITES)(
  'take-piece',
  pieceSchema,
  async (_, { id, number, bytes }): Promise<Result<null>> => {
    if (bytes.byteLength === 0 || bytes.byteLength > PIECE_BYTES) return refusedField('', 'file.bad-piece');
    return transaction(async (db) => {
      if (!(await findUpload(db, id))) return missing();
      await putPiece(db, id, number, bytes);
      return done(null);
    });
  },
);

const finishSchema = z.object({
  id: uuid,
  /** The item whose file it replaces; left out, it is a new one. */
  itemId: chosenId,
});

/**
 * Ends an upload: its type is told by its content, and it becomes an item, or replaces the file of one. A new one is
 * published at once: who opens it is a matter of the rules and of what offers it. The answer is the item.
 */
export const finishUpload = staffUse(...WRITES)(
  'finish-upload',
  finishSchema,
  async (actor, { id, itemId = null }): Promise<Result<{ itemId: string; title: string; path: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const powers = await powersOf(actor);
    return transaction(async (db) => {
      await lock(db, 'items');
      const upload = await findUpload(db, id);
      if (!upload) return missing();
      const whole = await wholeOf(db, id);
      if (!whole) return refusedField('', 'file.incomplete');
      const mediaType = mediaTypeOf(upload.name, whole.found, whole.text);
      if (!mediaType) return refusedField('', 'file.unknown-kind');
      const { size, sha256 } = whole;
      const known = itemId ? await findHead(db, itemId) : undefined;
      if (itemId && (known?.type !== FILE || known.trashedAt)) return missing();
      if (known) {
        requireWriting(powers, known);
        requirePublishing(powers, known.publishedAt !== null);
      }
      const taken = new Set((await listItems(db)).map(({ path }) => path));
      const target = known?.id ?? id;
      const title = known?.title ?? upload.name.replace(/\.[A-Za-z0-9]{1,8}$/, '').slice(0, 200);
      const path = known?.path ?? freePath(`/files/${fileSlug(upload.name)}`, (one) => taken.has(one));
      if (!known) {
        const input = { ...NEW_FILE, id: target, path, title, publishedAt: at };
        await saveItem(db, input, searchLanguageOf(site));
        await addRevision(db, target, actor.memberId, at);
      }
      await giveFile(db, { id, itemId: target, name: upload.name, mediaType, size, sha256 });
      const what = known ? 'file replaced' : 'file added';
      await record(db, actor, at, what, `item:${target}`, { name: upload.name, size, sha256 });
      return done({ itemId: target, title, path });
    });
  },
);

const NEW_FILE = {
  type: FILE,
  parentId: null,
  summary: '',
  body: EMPTY_PROSE,
  target: null,
  author: '',
  tags: [],
  position: 0,
  pictureId: null,
  pictureAlt: '',
  wasPublishedAt: null,
  commentsOn: null,
  categories: [],
};
