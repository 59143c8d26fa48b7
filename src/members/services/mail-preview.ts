import { z } from 'zod';
import { mailKind } from '@/mail/catalogue';
import { done, missing } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { previewFor, previewMembers } from './lib/mail-preview';

const inputSchema = z.object({
  template: z.string().max(60),
  /** Left out, the newest member. */
  memberId: z.uuid().nullable().catch(null),
});

/** How a mail reads for a member, with the owner's settings of it and the members to choose from. */
export const mailPreview = staffUse('set up the site')('mail-preview', inputSchema, async (_, input) => {
  const kind = mailKind(input.template);
  if (!kind) return missing();
  const { name: siteName, mails } = await currentSite();
  return done({
    kind,
    preview: await previewFor(kind.template, input.memberId),
    members: await previewMembers(),
    own: mails[kind.template],
    siteName,
  });
});
