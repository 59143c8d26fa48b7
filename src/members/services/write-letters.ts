import { pace } from '@/core/letters';
import type { OpenTopic } from '@/core/mail-topics';
import type { MailContent } from '@/mail/catalogue';
import { writeMailTo } from '@/mail/services/lib/write-mail';
import { findMailAddress, listAddressesFor } from '@/mail/store/mail-addresses';
import { isMailOn } from '@/mail/store/mail-choices';
import { findLetterToWrite, lockLetter, saveProgress, type Letter } from '@/members/store/letters';
import { listMemberIds } from '@/members/store/member-lists';
import { findMember, listMembersById } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction, type Transaction } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { systemUse } from '@/platform/use';
import { itemOf, letterFor, type Recipient } from './lib/letter-mail';
import { letterSeenPath } from './lib/letter-token';
import { filterOfLetter, topicOf } from './lib/letter-to';

type To = Recipient & { addressId?: string };

/** The next few to whom a letter goes, and whether they are members. */
async function nextFew(site: Site, letter: Letter, count: number): Promise<{ few: To[]; ids: string[] }> {
  if (letter.membersDone) {
    if (!letter.toAddresses) return { few: [], ids: [] };
    const found = await listAddressesFor(pool(), topicOf(letter), {
      limit: count,
      after: letter.afterAddress,
    });
    return {
      few: found.map(({ id, email }) => ({ id: null, addressId: id, email, name: '' })),
      ids: found.map(({ id }) => id),
    };
  }
  const now = siteNow(site);
  const ids = await listMemberIds(pool(), site.mode, now, filterOfLetter(letter, site, now), {
    limit: count,
    after: letter.afterMember,
  });
  const members = await listMembersById(pool(), ids);
  return { few: members.map(({ id, email, name }) => ({ id, email, name })), ids };
}

/** Whether they still want it: they may have turned it off since the list was read. */
async function wants(db: Transaction, { id, addressId }: To, topic: OpenTopic): Promise<boolean> {
  if (id) {
    const member = await findMember(db, id);
    return member !== undefined && member.deletedAt === null && (await isMailOn(db, id, topic));
  }
  const address = addressId ? await findMailAddress(db, addressId) : undefined;
  return (topic === 'posts' ? address?.getsPosts : address?.getsLetters) === true;
}

/**
 * Writes the next few of the letter whose turn it is, at the rate that the owner sets. They are queued, and how far it has got
 * is noted, in one transaction: after a crash it continues there, and of two workers one finds that the other was faster.
 */
export const writeLetters = systemUse('write-letters', nothing, async () => {
  const site = await currentSite();
  const at = siteNow(site);
  const letter = await findLetterToWrite(pool(), at);
  if (!letter) return done(0);
  const { count, waitSeconds } = pace(site.lettersPerMinute);
  const { few, ids } = await nextFew(site, letter, count);
  const item = await itemOf(letter);
  const written: { to: To; content: MailContent }[] = [];
  for (const to of few) {
    const content = await letterFor(site, letter, item, to);
    if (content) written.push({ to, content });
  }
  return transaction(async (db) => {
    const now = await lockLetter(db, letter.id);
    if (
      now?.state !== 'sending' ||
      now.afterMember !== letter.afterMember ||
      now.membersDone !== letter.membersDone ||
      now.afterAddress !== letter.afterAddress
    )
      return done(0);
    let wrote = 0;
    for (const { to, content } of written) {
      if (!(await wants(db, to, topicOf(letter)))) continue;
      await writeMailTo(db, site, {
        to: { id: to.id, addressId: to.addressId, address: to.email },
        reader: to,
        content,
        key: `letter:${letter.id}:${to.id ?? to.addressId}`,
        at,
        letterId: letter.id,
        seenPath: site.countsOpens && to.id ? letterSeenPath(letter.id, to.id) : undefined,
      });
      wrote++;
    }
    const last = ids.at(-1) ?? null;
    const isOver = ids.length < count;
    await saveProgress(db, letter.id, {
      afterMember: letter.membersDone ? letter.afterMember : (last ?? letter.afterMember),
      membersDone: letter.membersDone || isOver,
      afterAddress: letter.membersDone ? (last ?? letter.afterAddress) : null,
      doneAt: isOver && (letter.membersDone || !letter.toAddresses) ? at : null,
      wrote,
      waitSeconds: wrote > 0 ? (waitSeconds * wrote) / count : 0,
    });
    return done(ids.length);
  });
});
