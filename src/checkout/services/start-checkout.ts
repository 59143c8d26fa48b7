import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { saveCheckout } from '@/billing/store/checkouts';
import { siteNow } from '@/platform/clock';
import { guardForm, guardSchema } from '@/platform/guard-form';
import { emailAddress } from '@/platform/inputs';
import { done, refusedField, refusedWith, type Result } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { safeReturn } from '@/platform/safe-return';
import { pool } from '@/platform/store/db';
import { publicUse } from '@/platform/use';
import { findOffer, type StoredOffer } from '@/tiers/store/offers';
import { findTier } from '@/tiers/store/tiers';
import { readCode } from './lib/code-in-checkout';
import { placeOf } from './lib/checkout-action';
import { againstAskingForCode, mailCode } from '@/people/services/lib/mail-code';

const inputSchema = guardSchema.extend({
  email: emailAddress,
  offerId: z.string().min(1).max(200),
  /** Where they came from, and return to once they have joined. */
  to: z.string().max(500).default('/account'),
  /** The code that they use, where there is one. */
  code: z.string().trim().max(60).default(''),
  /** What they said they are called, where they were asked beside a join button. */
  name: z.string().trim().max(80).default(''),
});

/**
 * A visitor starts to join: whether or not the address is known, a code is mailed to it, and checkout continues as the
 * reader of that mail. The result is the secret of the browser that asked.
 */
export const startCheckout = publicUse(
  'start-checkout',
  inputSchema,
  async (actor, input): Promise<Result<{ browser: string }>> => {
    const human = await guardForm(input);
    if (!human.ok) return human;
    const offer = await findOffer(pool(), input.offerId);
    if (!offer?.onSale) return refusedField('', 'checkout.offer-left');
    const site = await currentSite();
    const asked = { site, offer, memberId: null, checkoutId: null };
    const code = input.code ? await readCode(pool(), input.code, asked) : null;
    if (code && !code.ok) return refusedWith(code.problem);
    const against = await againstAskingForCode(actor, input.email);
    if (against) return against;
    const more = new URLSearchParams({ to: safeReturn(input.to), ...(input.name && { name: input.name }) });
    const returnTo = `/join/${offer.id}?${more}`;
    await begin(offer, input, code?.code.id ?? null);
    return done(await mailCode({ purpose: 'join', email: input.email, memberId: null, returnTo }, true));
  },
);

/** A checkout is begun whose address is yet to be confirmed; it is nobody's until then. */
async function begin(
  offer: StoredOffer,
  { email, to }: { email: string; to: string },
  codeId: string | null,
): Promise<void> {
  const site = await currentSite();
  const tier = await findTier(pool(), offer.tierId);
  if (!tier) return;
  const id = randomUUID();
  await saveCheckout(pool(), {
    id,
    ...placeOf(tier, id),
    offerId: offer.id,
    mode: site.mode,
    memberId: null,
    email,
    name: '',
    answers: [],
    codeId,
    returnTo: safeReturn(to),
    state: 'confirming',
    at: siteNow(site),
  });
}
