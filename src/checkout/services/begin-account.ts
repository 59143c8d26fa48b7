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
import { findCode } from '@/tiers/store/codes';
import { findProduct } from '@/tiers/store/products';

const inputSchema = guardSchema.extend({
  email: emailAddress,
  /** Where they read on, or pay, once the address is confirmed. */
  to: z.string().max(500).default('/account'),
});

/**
 * Someone gives an address, to buy something, to use a gift, or for an account alone: a code is mailed to it, and they continue
 * as its reader, with an account that is made for them where there is none and they may have one. The result is the secret of
 * the browser that asked; it says nothing about the address.
 */
export const beginAccount = publicUse(
  'begin-account',
  inputSchema,
  async (actor, input): Promise<Result<{ browser: string }>> => {
    const human = await guardForm(input);
    if (!human.ok) return human;
    const { email } = input;
    const against = await againstAskingForCode(actor, email);
    if (against) return against;
    const returnTo = safeReturn(input.to);
    if (await mayBegin(returnTo))
      return done(await mailCode({ purpose: 'join', email, memberId: null, returnTo }, true));
    const isKnown = (await findMemberByEmail(pool(), email)) !== undefined;
    return done(await mailCode({ purpose: 'sign-in', email, memberId: null, returnTo }, isKnown));
  },
);

/** Whether an account may be made: where joining is open; where it needs a code, for who has one, or buys something. */
async function mayBegin(returnTo: string): Promise<boolean> {
  const { joining } = await currentSite();
  if (joining !== 'by-code') return joining === 'open';
  const { pathname, searchParams } = new URL(returnTo, 'http://site.example');
  const [, place, id = ''] = pathname.split('/');
  if (place === 'buy') return (await findProduct(pool(), id))?.onSale ?? false;
  const code = place === 'code' ? await findCode(pool(), searchParams.get('word') ?? '') : undefined;
  return code?.isOn ?? false;
}
