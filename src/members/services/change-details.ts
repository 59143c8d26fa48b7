import { z } from 'zod';
import { isCountry } from '@/platform/countries';
import { siteNow } from '@/platform/clock';
import { emailAddress, personName } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refused, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool, transaction } from '@/platform/store/db';
import { memberUse } from '@/platform/use';
import { setCountry } from '@/billing/services/lib/set-country';
import { findMember, setDetails } from '@/people/store/members';
import { confirmPassword } from '@/people/services/lib/confirm-password';
import { againstAskingForCode, mailCode } from '@/people/services/lib/mail-code';
import { say } from '@/words/problems';
import { problem } from '@/words/problems';

const detailsSchema = z.object({
  name: personName,
  /** Left out, they stay. */
  country: z
    .string()
    .refine((code) => code === '' || isCountry(code), say('country.missing'))
    .optional(),
  invoiceWords: z.string().trim().max(300).optional(),
});

/** A member changes their own name and their invoice details. */
export const changeDetails = memberUse(
  'change-details',
  detailsSchema,
  async (actor, { name, country, invoiceWords }): Promise<Result<null>> => {
    const site = await currentSite();
    return transaction(async (db) => {
      const member = await findMember(db, actor.memberId);
      if (!member) return missing();
      await setDetails(db, member.id, { name, invoiceWords: invoiceWords ?? member.invoiceWords });
      if (country !== undefined && country !== member.country) await setCountry(db, member.id, country);
      await record(db, actor, siteNow(site), 'details changed', `member:${member.id}`);
      return done(null);
    });
  },
);

const addressSchema = z.object({ email: emailAddress, password: z.string().max(1000).default('') });

/**
 * A member asks for another email address. It becomes theirs once the code that is mailed to it is typed in, while they
 * are signed in; until then the old one stays. Only the reader of the new address is told whether it is taken.
 */
export const changeAddress = memberUse(
  'change-address',
  addressSchema,
  async (actor, { email, password }): Promise<Result<{ browser: string }>> => {
    const member = await findMember(pool(), actor.memberId);
    if (!member) return missing();
    if (email === member.email) return refused({ email: problem('email.is-yours') });
    const checked = await confirmPassword(member, password);
    if (!checked.ok) return checked;
    const against = await againstAskingForCode(actor, email);
    if (against) return against;
    const asked = {
      purpose: 'new-address',
      email,
      memberId: member.id,
      returnTo: '/account/settings',
    } as const;
    return done(await mailCode(asked, true));
  },
);
