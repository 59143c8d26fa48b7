import { randomBytes } from 'node:crypto';
import { z } from 'zod';
import { codeTermsSchema, codeWord, type CodeTerms } from '@/core/tiers/codes';
import { parseAmount } from '@/core/money';
import { problemsOf } from '@/core/problem';
import { siteNow } from '@/platform/clock';
import { optionalCount, optionalDate } from '@/platform/form-fields';
import { slug, uuid } from '@/platform/inputs';
import { record } from '@/platform/record';
import { done, missing, refused, refusedField, refusedWith, type Result } from '@/platform/result';
import type { Site } from '@/platform/store/site';
import { currentSite } from '@/platform/site';
import { transaction, transactionUnlessRefused, type Db } from '@/platform/store/db';
import { staffUse } from '@/platform/use';
import { findBatch, insertBatch, insertCodes, updateBatch } from '@/tiers/store/codes';
import { findPass } from '@/tiers/store/passes';
import { findTier } from '@/tiers/store/tiers';
import { say, type ProblemCode } from '@/words/problems';

const word = z
  .string()
  .trim()
  .toLowerCase()
  .min(4, say('code.word'))
  .max(40, say('code.word'))
  .regex(/^[\p{L}\p{N}-]+$/u, say('code.word'));

/** Letters of a code that is made: 31 of them in 10 places are some 49 bits. */
const LETTERS = 10;
/** Codes that are made at once. */
const MOST_MADE = 5_000;

/** What a code does, as a form sends it: an amount that it takes off is typed, "5.00". */
const sent = {
  terms: z.record(z.string(), z.unknown()),
  amount: z.string().max(40).optional(),
};

/** The terms that were sent, with the amount that was typed; or what is wrong with them. */
function termsOf(
  { currency, language }: Site,
  { terms, amount }: z.output<z.ZodObject<typeof sent>>,
): Result<CodeTerms> {
  let read: unknown = terms;
  if (amount !== undefined) {
    const parsed = parseAmount(amount, currency, language);
    if (!parsed.ok) return refusedWith(parsed.problem, 'amount');
    if (parsed.amount === 0) return refusedField('amount', 'amount.missing');
    const charges = z.object({ charges: z.unknown() }).safeParse(terms.discount).data?.charges;
    read = { ...terms, discount: { amount: parsed.amount, charges }, currency };
  }
  const checked = codeTermsSchema.safeParse(read);
  if (checked.success) return done(checked.data);
  const problems = Object.entries(problemsOf<ProblemCode>(checked.error));
  return refused(Object.fromEntries(problems.map(([path, one]) => [path ? `terms.${path}` : 'terms', one])));
}

const makeSchema = z.object({
  name: z.string().trim().max(80).default(''),
  ...sent,
  /** One code of the owner's own; or so many are made, each with these letters before it. */
  words: z.union([
    z.object({ word }),
    z.object({
      count: z.number().int().min(1, say('code.no-words')).max(MOST_MADE),
      prefix: z
        .string()
        .trim()
        .max(12)
        .regex(/^[\p{L}\p{N}]*$/u, say('code.word')),
    }),
  ]),
});

/** Makes a code, or a batch of codes that do the same. */
export const makeCodes = staffUse('set tiers')(
  'make-codes',
  makeSchema,
  async (actor, { name, words, ...input }): Promise<Result<{ id: string }>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const checked = termsOf(site, input);
    if (!checked.ok) return checked;
    const terms = checked.value;
    return transactionUnlessRefused(async (db): Promise<Result<{ id: string }>> => {
      const wrong = await namesWhatIsGone(db, terms);
      if (wrong) return wrong;
      const list =
        'word' in words
          ? [words.word]
          : Array.from({ length: words.count }, () => codeWord(randomBytes(LETTERS), words.prefix));
      const called = name || ('word' in words ? words.word : words.prefix || list[0] || '');
      const id = await insertBatch(db, called, terms);
      const added = await insertCodes(db, id, list);
      if ('word' in words && added === 0) return refusedField('word', 'code.taken');
      await record(db, actor, at, 'codes made', `code:${id}`, { name: called, count: added });
      return done({ id });
    });
  },
);

const changeSchema = z.object({
  id: uuid,
  version: z.number().int(),
  name: z.string().trim().min(1, say('code.no-words')).max(80),
  ...sent,
});

/** Changes what a code does from now on; who used it before keeps what they got by it. */
export const changeCodes = staffUse('set tiers')(
  'change-codes',
  changeSchema,
  async (actor, { id, version, name, ...input }): Promise<Result<null>> => {
    const site = await currentSite();
    const at = siteNow(site);
    const checked = termsOf(site, input);
    if (!checked.ok) return checked;
    const terms = checked.value;
    return transaction(async (db): Promise<Result<null>> => {
      const wrong = await namesWhatIsGone(db, terms);
      if (wrong) return wrong;
      if (!(await findBatch(db, id))) return missing();
      if (!(await updateBatch(db, id, version, name, terms)))
        return refusedField('', 'record.saved-elsewhere');
      await record(db, actor, at, 'codes changed', `code:${id}`, { name });
      return done(null);
    });
  },
);

/** A refusal where a code would admit to, or give, what does not exist. */
async function namesWhatIsGone(db: Db, { admits, tierIds, gives }: CodeTerms) {
  for (const id of [...admits, ...tierIds, ...(gives?.kind === 'tier' ? [gives.id] : [])])
    if (!(await findTier(db, id))) return refusedField('', 'tier.gone');
  if (gives?.kind === 'pass' && !(await findPass(db, gives.id))) return refusedField('', 'pass.gone');
  return null;
}

const admitSchema = z.object({
  tierId: slug,
  code: word,
  mostUses: optionalCount(say('join-code.uses')),
  lastDay: optionalDate,
});

/** A code that admits to joining one tier, from the page of that tier. */
export const addJoiningCode = staffUse('set tiers')(
  'add-joining-code',
  admitSchema,
  async (actor, { tierId, code, mostUses, lastDay }): Promise<Result<null>> => {
    const terms: CodeTerms = {
      admits: [tierId],
      discount: null,
      currency: null,
      tierIds: [],
      gives: null,
      mostUses,
      mostPerPerson: null,
      firstDay: null,
      lastDay,
      newMembersOnly: false,
      isOn: true,
    };
    const made = await makeCodes(actor, { terms, words: { word: code } });
    if (made.ok) return done(null);
    const { word: taken, ...rest } = made.problems;
    return { ...made, problems: taken ? { code: taken, ...rest } : rest };
  },
);
