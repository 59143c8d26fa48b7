import { z } from 'zod';
import type { Discount } from '../billing/book';
import type { LocalDate } from '../instants';
import { lengthSchema, localDateSchema } from '../offers/offer-schema';
import { say, type CoreCode, type Problem } from '../problem';

/** What a code does, and how far. A code does at least one of the three: it admits, takes something off, or gives. */
export const codeTermsSchema = z
  .object({
    /** The tiers that it admits to joining. */
    admits: z.array(z.string().max(200)).max(100),
    /** Taken off the first so many charges above zero; null: all of them. An amount is in minor units of the currency. */
    discount: z
      .object({
        amount: z.number().int().min(1).optional(),
        share: z.number().int().min(1).max(100).optional(),
        charges: z.number().int().min(1).max(1_200).nullable(),
      })
      .refine(({ amount, share }) => (amount === undefined) !== (share === undefined))
      .nullable(),
    currency: z
      .string()
      .regex(/^[A-Z]{3}$/)
      .nullable(),
    /** The tiers that the discount is for; empty: all. */
    tierIds: z.array(z.string().max(200)).max(100),
    /** What it gives by itself; `lasts` null: for good. */
    gives: z
      .object({
        kind: z.enum(['tier', 'pass']),
        id: z.string().min(1).max(200),
        lasts: lengthSchema.nullable(),
      })
      .nullable(),
    /** Of each code. */
    mostUses: z.number().int().min(1, say('code.least-one')).max(1_000_000).nullable(),
    /** Of one person, with any code of the batch. */
    mostPerPerson: z.number().int().min(1, say('code.least-one')).max(1_000).nullable(),
    firstDay: localDateSchema.nullable(),
    lastDay: localDateSchema.nullable(),
    /** For people who never had a subscription. */
    newMembersOnly: z.boolean(),
    isOn: z.boolean(),
  })
  .superRefine((terms, context) => {
    const add = (path: string, message: CoreCode) =>
      context.addIssue({ code: 'custom', path: [path], message });
    if (terms.admits.length === 0 && !terms.discount && !terms.gives) add('', 'code.does-nothing');
    if (terms.discount?.amount !== undefined && !terms.currency) add('currency', 'currency.missing');
    if (terms.firstDay && terms.lastDay && terms.firstDay > terms.lastDay) add('lastDay', 'code.ends-first');
  });
export type CodeTerms = z.output<typeof codeTermsSchema>;

/** How often a code was used so far, and by the person who types it now; what is being paid for counts. */
export type CodeUses = { all: number; own: number };

/**
 * Why a code is not good now, whatever it is typed for; null where it is. `isNew`: the person never had a subscription; null
 * where it is not known yet who it is.
 */
export function codeAgainst(
  terms: CodeTerms,
  { uses, today, isNew }: { uses: CodeUses; today: LocalDate; isNew: boolean | null },
): Problem | null {
  if (!terms.isOn || (terms.lastDay !== null && today > terms.lastDay)) return { code: 'code.over' };
  if (terms.firstDay !== null && today < terms.firstDay) return { code: 'code.not-yet' };
  if (terms.mostUses !== null && uses.all >= terms.mostUses) return { code: 'code.used-up-all' };
  if (terms.mostPerPerson !== null && uses.own >= terms.mostPerPerson) return { code: 'code.used-by-you' };
  if (terms.newMembersOnly && isNew === false) return { code: 'code.new-only' };
  return null;
}

/** What a code takes off joining a tier, paid in a currency; null where it takes nothing off that. */
export function discountFor(terms: CodeTerms, tierId: string, currency: string): Discount | null {
  const { discount, tierIds } = terms;
  if (!discount || (tierIds.length > 0 && !tierIds.includes(tierId))) return null;
  return discount.amount !== undefined && terms.currency !== currency ? null : discount;
}

/** Letters and digits that nobody takes for one another. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** A code of random letters in groups of four, such as "k7mq-x2pd-9vhc"; `random`: bytes, one for each letter. */
export function codeWord(random: Uint8Array, prefix = ''): string {
  const letters = [...random].map((byte) => LETTERS[byte % LETTERS.length] ?? '');
  const groups = letters.join('').match(/.{1,4}/g) ?? [];
  return [...(prefix ? [prefix.toLowerCase()] : []), ...groups].join('-');
}
