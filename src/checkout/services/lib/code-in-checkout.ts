import type { Discount } from '@/core/billing/book';
import { localDate } from '@/core/calendar';
import type { MemberId } from '@/core/ids';
import type { Problem } from '@/core/problem';
import { codeAgainst, discountFor } from '@/core/tiers/codes';
import { codeOrHolder, type PriceForHolder } from '@/core/tiers/holder-prices';
import { countUses, hadSubscription } from '@/billing/store/code-uses';
import { findMember } from '@/people/store/members';
import { siteNow } from '@/platform/clock';
import type { Db } from '@/platform/store/db';
import type { Site } from '@/platform/store/site';
import { findCode, type Code } from '@/tiers/store/codes';
import type { StoredOffer } from '@/tiers/store/offers';
import { problem, type ProblemCode } from '@/words/problems';

/** What a code that was typed comes to, for one person and one offer. */
export type CodeInCheckout =
  | { ok: true; code: Code; admits: boolean; discount: Discount | null }
  | { ok: false; problem: Problem<ProblemCode> };

type Asked = {
  site: Site;
  offer: Pick<StoredOffer, 'tierId' | 'definition'>;
  memberId: MemberId | null;
  /** The checkout in which it is used, which does not count against it. */
  checkoutId: string | null;
};

/**
 * The discount with which someone joins, and what a code comes to beside their price as a holder: where that is the lower one, the
 * code is not used, unless they are let in by it.
 * @param first what the offer asks for first, in minor units
 */
export function priceBy(
  code: CodeInCheckout | null,
  forHolder: PriceForHolder | null,
  first: number,
): { discount: Discount | null; by: 'code' | 'holder' | null; code: CodeInCheckout | null } {
  const used = codeOrHolder(code?.ok ? code.discount : null, forHolder, first);
  const { discount, by } = used ?? { discount: null, by: null };
  if (by === 'code' || !code?.ok || !code.discount) return { discount, by, code };
  return {
    discount,
    by,
    code: code.admits ? { ...code, discount: null } : { ok: false, problem: problem('code.lower-already') },
  };
}

/** Looks at a code by its word: whether it is good now, and what it does for joining by an offer. */
export async function readCode(db: Db, word: string, asked: Asked): Promise<CodeInCheckout> {
  const code = await findCode(db, word);
  return code ? judgeCode(db, code, asked) : { ok: false, problem: problem('checkout.code-invalid') };
}

/** The same of a code that was found, or locked, before. */
export async function judgeCode(
  db: Db,
  code: Code,
  { site, offer, memberId, checkoutId }: Asked,
): Promise<CodeInCheckout> {
  const uses = await countUses(db, code, { memberId, mode: site.mode, except: checkoutId });
  const isNew =
    memberId === null || !code.newMembersOnly ? null : !(await hadSubscription(db, memberId, site.mode));
  const against = codeAgainst(code, { uses, today: localDate(siteNow(site), site.zone), isNew });
  if (against) return { ok: false, problem: against };
  // Who was invited is known by their address, once that is confirmed.
  const member = code.email !== null && memberId ? await findMember(db, memberId) : undefined;
  if (member && member.email !== code.email) return { ok: false, problem: problem('code.of-another') };
  const admits = code.admits.includes(offer.tierId);
  const discount = discountFor(code, offer.tierId, offer.definition.currency);
  if (!admits && !discount) return { ok: false, problem: problem('code.not-for-this') };
  return { ok: true, code, admits, discount };
}
