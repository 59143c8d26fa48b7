import { plainHtml } from '@/core/content/html';
import type { Prose } from '@/core/content/prose';
import type { MemberId } from '@/core/ids';
import { mailText, mergeProse } from '@/core/letters';
import { mergeWords } from '@/core/mail-words';
import { mailedItem, readerOutside, visitorOutside } from '@/access/services/lib/reader-outside';
import type { Shown } from '@/access/services/lib/shown';
import { shownIn } from '@/access/services/lib/shown';
import { listByIds, type Item } from '@/content/store/items';
import type { MailContent } from '@/mail/catalogue';
import { mergeFieldsOf } from '@/mail/render';
import { mailFrame, type Reader as Person } from '@/mail/services/lib/write-mail';
import type { Letter } from '@/members/store/letters';
import { config } from '@/platform/config';
import { pool } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { letterReadPath } from './letter-token';

/** Someone to whom a letter goes. `id`: of the member, or null for one of whom only the address is known. */
export type Recipient = Person & { id: MemberId | null };

const htmlOf = (body: Prose, shown: Shown): string => {
  const base = config().SITE_URL;
  return plainHtml(body, { base, fileHref: (_, { path }) => `${base}${path}`, shown });
};

/** The item of a post that is mailed. */
export async function itemOf({ itemId }: Letter): Promise<Item | undefined> {
  return itemId ? (await listByIds(pool(), [itemId]))[0] : undefined;
}

/** A letter as one person gets it; null where they get nothing of it. `item`: of a post. */
export async function letterFor(
  site: Site,
  letter: Pick<Letter, 'id' | 'kind' | 'closedGet' | 'subject' | 'body'>,
  item: Item | undefined,
  to: Recipient,
): Promise<MailContent | null> {
  const reader = to.id ? await readerOutside(to.id) : await visitorOutside();
  if (!reader) return null;
  const readPath = (path: string): string =>
    site.countsOpens && to.id ? letterReadPath(letter.id, to.id) : path;
  if (letter.kind === 'post') {
    const mailed = item && (await mailedItem(reader, item, letter.closedGet));
    if (!mailed) return null;
    const { body, shown, rest } = mailed;
    const text = { html: htmlOf(body, shown), text: mailText(body) };
    return {
      template: 'new-post',
      title: item.title,
      by: item.author,
      ...text,
      rest,
      readPath: readPath(item.path),
    };
  }
  const plain = { template: 'letter', title: letter.subject, html: '', text: '', readPath: '/' } as const;
  const fields = mergeFieldsOf(plain, mailFrame(site, to));
  const body = mergeProse(letter.body, fields);
  return {
    ...plain,
    title: mergeWords(letter.subject, fields),
    html: htmlOf(body, await shownIn(reader, body)),
    text: mailText(body),
    readPath: readPath('/'),
  };
}
