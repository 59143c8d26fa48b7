import { z } from 'zod';
import { may } from '@/core/staff';
import { mailKind } from '@/mail/catalogue';
import { done, missing } from '@/platform/result';
import { currentSite, powersOf } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { previewFor, previewMembers } from './lib/mail-preview';

const inputSchema = z.object({
  template: z.string().max(60),
  /** Left out, the newest member. */
  memberId: z.uuid().nullable().catch(null),
});

/** How a mail reads for a member, for those who may see members, with the owner's settings of it and the members to choose from. */
export const mailPreview = staffUse('change settings')('mail-preview', inputSchema, async (actor, input) => {
  const kind = mailKind(input.template);
  if (!kind) return missing();
  const { name: siteName, mails } = await currentSite();
  return done({
    kind,
    // Whose mail it is says something of them.
    ...(may(await powersOf(actor), 'see members')
      ? { preview: await previewFor(kind.template, input.memberId), members: await previewMembers() }
      : { preview: null, members: [] }),
    own: mails[kind.template],
    siteName,
  });
});
