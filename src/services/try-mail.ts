import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { mailKind } from '@/mail/catalogue';
import { pool, transaction } from '@/store/db';
import { findMember } from '@/store/members';
import { requireRight, type Actor } from './actor';
import { siteNow } from './clock';
import { sampleFor } from './mail-preview';
import { done, refusedField, type Result } from './result';
import { currentSite } from './site';
import { writeMailTo } from './write-mail';

/** Sends the owner a mail as a member would get it, to the owner's own address; the member gets nothing. */
export async function tryMail(
  actor: Actor,
  template: string,
  memberId: string,
): Promise<Result<{ email: string }>> {
  requireRight(actor, 'set up the site');
  const kind = mailKind(template);
  const me = actor.memberId ? await findMember(pool(), actor.memberId) : undefined;
  const member = z.uuid().safeParse(memberId).success ? await findMember(pool(), memberId) : undefined;
  if (!kind || !me || !member)
    return refusedField('', 'There is no such mail or member any more. Load the page again.');
  const site = await currentSite();
  const content = await sampleFor(kind.template, site, member);
  await transaction((db) =>
    writeMailTo(
      db,
      site,
      { id: me.id, address: me.email },
      member,
      content,
      `try:${randomUUID()}`,
      siteNow(site),
    ),
  );
  return done({ email: me.email });
}
