import { z } from 'zod';
import { siteNow } from '@/platform/clock';
import { search } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { transaction } from '@/platform/store/db';
import { saveReworded } from '@/platform/store/site';
import { staffUse } from '@/platform/use';
import { PARTS } from '@/words/en';
import { namesIn, readable } from '@/words/message';
import { isMemberKey, originalOf, type MemberKey } from '@/words/words';

const bySettings = staffUse('change settings');
const PAGE_ROWS = 40;

export type PartOfSite = keyof typeof PARTS;
export type Wording = {
  key: MemberKey;
  part: PartOfSite;
  original: string;
  /** The owner's own; '' where the original is used. */
  own: string;
  /** As it is usually read: without the branches for one, for none and the like. */
  usual: string;
  /** Whether it has such branches. */
  hasBranches: boolean;
  /** What is filled in: "{amount}". */
  fields: string[];
};

const ALL = Object.entries(PARTS).flatMap(([part, messages]) =>
  Object.keys(messages).flatMap((key) => (isMemberKey(key) ? [{ key, part: part as PartOfSite }] : [])),
);

const listSchema = z.object({
  search,
  part: z.enum(['', 'changed', ...Object.keys(PARTS)]).catch(''),
  page: z.coerce.number().int().min(1).max(1000).catch(1),
});

/** The sentences that members read, as they are and as the owner worded them. */
export const listWording = bySettings('list-wording', listSchema, async (_, query) => {
  const { language, reworded } = await currentSite();
  const sought = query.search.trim().toLocaleLowerCase(language);
  const all = ALL.map(({ key, part }): Wording => {
    const original = originalOf(key, language);
    const fields = [...namesIn(original, language)].map((name) => `{${name}}`);
    const own = reworded[key] ?? '';
    const usual = readable(own || original, language);
    const hasBranches = /\{\w+, (plural|select),/.test(original);
    return { key, part, original, own, usual, hasBranches, fields };
  });
  const fitting = all.filter(
    ({ part, original, own, usual }) =>
      (query.part === '' || part === query.part || (query.part === 'changed' && own !== '')) &&
      `${original} ${own} ${usual}`.toLocaleLowerCase(language).includes(sought),
  );
  return done({
    rows: fitting.slice((query.page - 1) * PAGE_ROWS, query.page * PAGE_ROWS),
    total: fitting.length,
    changed: all.filter(({ own }) => own !== '').length,
    query,
    perPage: PAGE_ROWS,
  });
});

const saveSchema = z.object({
  key: z.string().max(80),
  /** '' goes back to the original. */
  words: z.string().trim().max(1_000),
});

/** Puts a sentence into the owner's own words. It may leave values out, and asks for none that it never had. */
export const reword = bySettings(
  'reword',
  saveSchema,
  async (actor, { key, words: typed }): Promise<Result<{ isOwn: boolean }>> => {
    if (!isMemberKey(key)) return refusedField('', 'thing.gone');
    const site = await currentSite();
    const original = originalOf(key, site.language);
    const words = typed === original ? '' : typed;
    const known = namesIn(original, site.language);
    let used: Set<string>;
    try {
      used = namesIn(words, site.language);
    } catch {
      return refusedField('words', 'words.unreadable');
    }
    const unknown = [...used].filter((name) => !known.has(name)).map((name) => `{${name}}`);
    if (unknown[0])
      return known.size > 0
        ? refusedField('words', 'words.unknown-field', {
            field: unknown[0],
            known: [...known].map((name) => `{${name}}`),
          })
        : refusedField('words', 'words.no-fields', { field: unknown[0] });
    return transaction(async (db) => {
      await saveReworded(db, site.language, key, words);
      await record(db, actor, siteNow(site), 'sentence reworded', `words:${key}`, { words });
      return done({ isOwn: words !== '' });
    });
  },
);
