import { writersIn, type Comment } from '@/content/store/comments';
import type { ItemHead } from '@/content/store/items';
import { writeMail } from '@/mail/services/lib/write-mail';
import { findMember, type Member } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { pool, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { commentedItem } from './comment-rights';
import { readerFor } from './reader';
import { personFacts } from './viewpoints';

/** Those in a conversation, but for one, who may still read it now. */
export async function readersOfThread(
  site: Site,
  { itemId, threadId, memberId }: Pick<Comment, 'itemId' | 'threadId' | 'memberId'>,
): Promise<Member[]> {
  if (threadId === null) return [];
  const readers: Member[] = [];
  for (const id of await writersIn(pool(), threadId)) {
    const member = id === memberId ? undefined : await findMember(pool(), id);
    if (!member) continue;
    const person = await personFacts(site, id, siteNow(site));
    if (person && (await commentedItem(await readerFor(person), itemId))) readers.push(member);
  }
  return readers;
}

type Told = { item: Pick<ItemHead, 'title' | 'path'>; comment: Pick<Comment, 'id' | 'at'>; by: string };

/** Mails that a reply is shown; each is told once of the same one. */
export async function tellThread(
  db: Transaction,
  site: Site,
  readers: Member[],
  { item, comment, by }: Told,
): Promise<void> {
  for (const member of readers)
    await writeMail(db, site, {
      to: member,
      content: {
        template: 'comment-reply',
        title: item.title,
        path: `${item.path}#comment-${comment.id}`,
        by,
      },
      key: `comment:${comment.id}:${member.id}`,
      at: siteNow(site),
    });
}
