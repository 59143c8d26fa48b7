import { z } from 'zod';
import { mailCode, againstAskingForCode } from '@/people/services/lib/mail-code';
import { findMemberByEmail } from '@/people/store/members';
import { guardForm, guardSchema } from '@/platform/guard-form';
import { emailAddress } from '@/platform/inputs';
import { done, type Result } from '@/platform/result';
import { safeReturn } from '@/platform/safe-return';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { publicUse } from '@/platform/use';

const inputSchema = guardSchema.extend({
  email: emailAddress,
  /** Where they read on, or pay, once the address is confirmed. */
  to: z.string().max(500).default('/account'),
});

/**
 * Someone gives an address, to buy something or to use a gift: a code is mailed to it, and they continue as its reader, with an
 * account that is made for them where there is none. Where joining is closed, only those who have one continue. The result is
 * the secret of the browser that asked; it says nothing about the address.
 */
export const beginAccount = publicUse(
  'begin-account',
  inputSchema,
  async (actor, input): Promise<Result<{ browser: string }>> => {
    const human = await guardForm(input);
    if (!human.ok) return human;
    const { email, to } = input;
    const against = await againstAskingForCode(actor, email);
    if (against) return against;
    const { joining } = await currentSite();
    const returnTo = safeReturn(to);
    if (joining !== 'closed')
      return done(await mailCode({ purpose: 'join', email, memberId: null, returnTo }, true));
    const isKnown = (await findMemberByEmail(pool(), email)) !== undefined;
    return done(await mailCode({ purpose: 'sign-in', email, memberId: null, returnTo }, isKnown));
  },
);
