import { z } from 'zod';
import {
  articleSchema,
  hasSections,
  isEmpty,
  plainText,
  EMPTY_PROSE,
  type Prose,
} from '@/core/content/prose';
import { LETTER_FIELDS } from '@/core/letters';
import { unknownFields } from '@/core/mail-words';
import { isKnown, unknownItems } from '@/access/services/lib/desk-items';
import { countAddressesFor } from '@/mail/store/mail-addresses';
import { countOpens } from '@/members/store/letter-opens';
import {
  countLetters,
  countMailsOf,
  deleteLetter as remove,
  findLetter,
  insertLetter,
  listLetters,
  updateLetter,
  type Letter,
} from '@/members/store/letters';
import { countMembers } from '@/members/store/member-lists';
import { findMember } from '@/people/store/members';
import type { Actor } from '@/platform/actor';
import { siteNow } from '@/platform/clock';
import { seenVersion } from '@/platform/form-fields';
import { uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refusedField, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';
import { itemOf, letterFor } from './lib/letter-mail';
import { filterOfLetter, topicOf } from './lib/letter-to';
import { memberFilterSchema } from './lib/member-filter';

export type { Letter, LetterState, ListedLetter } from '@/members/store/letters';

const PAGE_SIZE = 50;
const MOST = 2_000_000;

/** Letters and mailed posts, a page of them, with how letters are sent. */
export const lettersPlace = staffUse('see members')(
  'letters-place',
  z.object({ page: z.coerce.number().int().min(1).max(10_000).catch(1) }),
  async (actor, { page }) => {
    const unknown = await unknownItems(actor);
    const { lettersPerMinute, asksLetters, countsOpens } = await currentSite();
    const total = await countLetters(pool(), unknown);
    return done({
      letters: await listLetters(pool(), unknown, PAGE_SIZE, (page - 1) * PAGE_SIZE),
      page,
      total,
      perPage: PAGE_SIZE,
      settings: { lettersPerMinute, asksLetters, countsOpens },
    });
  },
);

/** Whom a letter goes to: how many are in its list, how many of them get mails of its topic, and how many addresses do. */
export type LetterReach = { listed: number; members: number; addresses: number };

async function reachOf(letter: Pick<Letter, 'kind' | 'filter' | 'toAddresses'>): Promise<LetterReach> {
  const site = await currentSite();
  const now = siteNow(site);
  const getting = filterOfLetter(letter, site, now);
  return {
    listed: await countMembers(pool(), site.mode, now, { ...getting, gets: undefined }, MOST),
    members: await countMembers(pool(), site.mode, now, getting, MOST),
    addresses: letter.toAddresses ? await countAddressesFor(pool(), topicOf(letter)) : 0,
  };
}

export type LetterOnDesk = {
  letter: Letter;
  /** Of a post: what is mailed. */
  item: { id: string; title: string; path: string } | null;
  reach: LetterReach;
  mails: { queued: number; sent: number; failed: number };
  opens: { opened: number; read: number } | null;
  /** A draft as the one who looks would get it; its HTML was made by us. */
  preview: { subject: string; html: string } | null;
};

/** A letter with whom it reaches, and how far it has got. */
export const letterPage = staffUse('see members')(
  'letter-page',
  uuid,
  async (actor, id): Promise<Result<LetterOnDesk>> => {
    const letter = await findLetter(pool(), id);
    if (!letter) return missing();
    const item = await itemOf(letter);
    if (item && !(await isKnown(actor, item))) return missing();
    const { countsOpens } = await currentSite();
    return done({
      letter,
      item: item ? { id: item.id, title: item.title, path: item.path } : null,
      reach: await reachOf(letter),
      mails: await countMailsOf(pool(), id),
      opens: countsOpens ? await countOpens(pool(), id) : null,
      preview: letter.state === 'draft' ? await previewOf(letter, actor) : null,
    });
  },
);

async function previewOf(letter: Letter, { memberId }: Actor): Promise<LetterOnDesk['preview']> {
  const me = memberId ? await findMember(pool(), memberId) : undefined;
  const site = await currentSite();
  if (!me) return null;
  const content = await letterFor({ ...site, countsOpens: false }, letter, undefined, me);
  if (content?.template !== 'letter') return null;
  return { subject: content.title, html: content.html };
}

/** Whom a new letter to a list would reach. */
export const newLetter = staffUse('manage members')('new-letter', memberFilterSchema, async (_, filter) => {
  const draft = { kind: 'letter' as const, filter, toAddresses: true };
  return done({ filter, body: EMPTY_PROSE, reach: await reachOf(draft) });
});

const letterSchema = z.object({
  id: uuid.nullable(),
  subject: z
    .string()
    .trim()
    .min(1, say('letter.no-subject'))
    .max(150)
    .regex(/^[^\r\n]*$/, say('mail.one-line')),
  body: articleSchema,
  /** Left out where a letter keeps its list. */
  filter: memberFilterSchema.optional(),
  toAddresses: z.boolean(),
  version: seenVersion,
});

/** Writes a letter, or changes one that was not sent yet. */
export const saveLetter = staffUse('manage members')(
  'save-letter',
  letterSchema,
  async (actor, { id, version, ...input }): Promise<Result<{ id: string }>> => {
    const against = againstText(input.subject, input.body);
    if (against) return against;
    const site = await currentSite();
    const at = siteNow(site);
    return transaction(async (db) => {
      const before = id ? await findLetter(db, id) : undefined;
      if (id && (before?.kind !== 'letter' || before.state !== 'draft'))
        return refusedField('', 'letter.not-draft');
      const filter = input.filter ?? memberFilterSchema.parse(before?.filter ?? {});
      const text = { subject: input.subject, body: input.body, filter, toAddresses: input.toAddresses };
      if (id && !(await updateLetter(db, id, version ?? 0, text)))
        return refusedField('', 'letter.changed-elsewhere');
      const letterId = id ?? (await insertLetter(db, text, actor.memberId));
      await record(db, actor, at, before ? 'letter changed' : 'letter written', `letter:${letterId}`, {
        subject: input.subject,
      });
      return done({ id: letterId });
    });
  },
);

function againstText(subject: string, body: Prose): Result<never> | null {
  if (isEmpty(body)) return refusedField('body', 'letter.empty');
  if (hasSections(body)) return refusedField('body', 'prose.no-sections');
  for (const [field, words] of [
    ['subject', subject],
    ['body', plainText(body)],
  ] as const) {
    const [unknown] = unknownFields(words, LETTER_FIELDS);
    if (unknown !== undefined)
      return refusedField(field, 'mail.unknown-field', {
        field: `{${unknown}}`,
        known: LETTER_FIELDS.map((name) => `{${name}}`),
      });
  }
  return null;
}

/** Deletes a letter that was not sent yet. */
export const deleteLetter = staffUse('manage members')(
  'delete-letter',
  uuid,
  async (actor, id): Promise<Result<null>> => {
    const at = siteNow(await currentSite());
    return transaction(async (db) => {
      if (!(await remove(db, id))) return refusedField('', 'letter.not-draft');
      await record(db, actor, at, 'letter deleted', `letter:${id}`);
      return done(null);
    });
  },
);
