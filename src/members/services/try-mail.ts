import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { may } from '@/core/staff';
import { mailKind } from '@/mail/catalogue';
import { pool, transaction } from '@/platform/store/db';
import { findMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import { sampleFor } from './lib/mail-preview';
import { done, refused, refusedField, type Result } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { writeMailTo } from '@/mail/services/lib/write-mail';
import { staffUse } from '@/platform/use';
import { problem } from '@/words/problems';

/** Sends the caller a mail as a member would get it; the member gets nothing. */
const inputSchema = z.object({ template: z.string().max(60), memberId: z.string().max(60) });

export const tryMail = staffUse('change settings')(
  'try-mail',
  inputSchema,
  async (actor, { template, memberId }): Promise<Result<{ email: string }>> => {
    if (!may(await powersOf(actor), 'see members'))
      return refused(
        { '': problem('staff.may-not', { role: actor.staffRole ?? 'none', right: 'see members' }) },
        'forbidden',
      );
    const kind = mailKind(template);
    const me = actor.memberId ? await findMember(pool(), actor.memberId) : undefined;
    const member = z.uuid().safeParse(memberId).success ? await findMember(pool(), memberId) : undefined;
    if (!kind || !me || !member) return refusedField('', 'mail.gone');
    const site = await currentSite();
    const content = await sampleFor(kind.template, site, member);
    await transaction((db) =>
      writeMailTo(db, site, {
        to: { id: me.id, address: me.email },
        reader: member,
        content,
        key: `try:${randomUUID()}`,
        at: siteNow(site),
      }),
    );
    return done({ email: me.email });
  },
);
