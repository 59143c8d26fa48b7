import { setImmediate } from 'node:timers/promises';
import { closedPhrases, phrasesFound } from '@/core/access/leaks';
import { FILE } from '@/core/content/item';
import { plainText, type Prose } from '@/core/content/prose';
import { listByIds, type Item } from '@/content/store/items';
import { listPublished } from '@/content/store/item-lists';
import { shelved } from '@/platform/shelf';
import { pool } from '@/platform/store/db';
import { hiddenFrom } from './hidden';
import { isLetIn, judge, openBody, type Reader } from './reader';
import { doorstepAt } from './doorstep-at';
import { teaserOf } from './text-for';

/** What someone must not meet anywhere, and what they must at its own address. */
export type ClosedWords = {
  /** Phrases of closed texts, each with the id of its item. */
  phrases: ReadonlyMap<string, string>;
  /** The addresses of what is hidden from them, with the ids of the items. */
  hidden: [path: string, id: string][];
  /** Whether each item is open to them, and a phrase of it that its page then has. */
  items: ReadonlyMap<string, { isOpen: boolean; phrase: string | null }>;
};

const AT_ONCE = 200;

/** What is closed to a reader of all that is published; worked out once an hour for each version of the site and viewpoint. */
export const closedWords = (reader: Reader, viewpoint: string): Promise<ClosedWords> =>
  shelved(`closed words for ${viewpoint} ${reader.now.slice(0, 13)}`, () => find(reader));

async function find(reader: Reader): Promise<ClosedWords> {
  const heads = await listPublished(pool(), reader.now);
  const hidden = new Set((await hiddenFrom(reader)).ids);
  const decisions = await judge(reader, heads);
  const phrases = new Map<string, string>();
  const items = new Map<string, { isOpen: boolean; phrase: string | null }>();
  const allowed: string[] = [];
  for (let from = 0; from < heads.length; from += AT_ONCE) {
    const ids = heads.slice(from, from + AT_ONCE).map(({ id }) => id);
    for (const item of await listByIds(pool(), ids)) {
      const isOpen = isLetIn(decisions(item.id));
      const readable = await readableOf(reader, item, isOpen);
      allowed.push(readable);
      for (const phrase of closedPhrases(textOf(item, item.body), readable)) phrases.set(phrase, item.id);
      const [own = null] =
        isOpen && item.type !== FILE ? closedPhrases(plainText(openBody(reader, item)), '', 2) : [];
      items.set(item.id, { isOpen, phrase: own });
    }
    await setImmediate();
  }
  // What is closed here may be said openly elsewhere.
  for (const text of allowed) for (const { phrase } of phrasesFound(text, phrases)) phrases.delete(phrase);
  return {
    phrases,
    hidden: heads.filter(({ id }) => hidden.has(id)).map(({ id, path }) => [path, id]),
    items,
  };
}

const textOf = ({ title, summary }: Item, text: Prose | null): string =>
  [title, summary, text ? plainText(text) : ''].join('\n');

async function readableOf(reader: Reader, item: Item, isOpen: boolean): Promise<string> {
  if (isOpen) return textOf(item, openBody(reader, item));
  const decision = (await judge(reader, [item]))(item.id);
  const { summary, teaser } = teaserOf(item, (await doorstepAt(reader, item, decision)).doorstep);
  return textOf({ ...item, summary }, teaser);
}
