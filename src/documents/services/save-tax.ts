import { z } from 'zod';
import { slugify } from '@/core/content/slug';
import { parseRate } from '@/core/tax';
import { lock, transaction } from '@/platform/store/db';
import { saveTax as store } from '@/platform/store/tax';
import { listTiers, setTaxKind } from '@/tiers/store/tiers';
import { siteNow } from '@/platform/clock';
import { issueDocuments } from './lib/issue-documents';
import { isCountry } from '@/platform/countries';
import { record } from '@/platform/record';
import { done, type Result } from '@/platform/result';
import { freeId } from '@/platform/free-id';
import { currentSite } from '@/platform/site';
import { staffUse } from '@/platform/use';
import { say } from '@/words/problems';

const country = z
  .string()
  .trim()
  .toUpperCase()
  .refine((code) => code === '' || isCountry(code), say('country.missing'));
const taxRate = z.string().transform((typed, context) => {
  const parsed = parseRate(typed);
  if (parsed.ok) return parsed.rate;
  context.addIssue({ code: 'custom', message: parsed.problem.code });
  return z.NEVER;
});

const inputSchema = z
  .object({
    way: z.enum(['none', 'included', 'added'], say('tax.choose')),
    homeCountry: country,
    seller: z.string().trim().max(500),
    taxNumber: z.string().trim().max(40),
    documentPrefix: z
      .string()
      .trim()
      .regex(/^[A-Za-z0-9/-]{0,12}$/, say('tax.number-prefix')),
    kinds: z
      .array(
        z.object({
          id: z.string().max(60).default(''),
          name: z.string().trim().min(1, say('tax.no-kind')).max(60),
          /** Left out, they stay. */
          tiers: z.array(z.string().max(200)).max(500).optional(),
          rates: z
            .array(
              z.object({
                country,
                name: z.string().trim().min(1, say('tax.no-name')).max(30),
                rate: taxRate,
              }),
            )
            .max(300, say('list.at-most')),
        }),
      )
      .max(20, say('list.at-most')),
  })
  .superRefine((input, context) => {
    if (input.way !== 'none' && input.homeCountry === '')
      context.addIssue({
        code: 'custom',
        path: ['homeCountry'],
        message: say('tax.no-country'),
      });
    if (input.way !== 'none' && input.kinds.every((kind) => kind.rates.length === 0))
      context.addIssue({
        code: 'custom',
        path: [''],
        message: say('tax.no-rate'),
      });
    for (const [k, kind] of input.kinds.entries()) {
      const seen = new Set<string>();
      for (const [r, one] of kind.rates.entries()) {
        if (seen.has(one.country))
          context.addIssue({
            code: 'custom',
            path: ['kinds', k, 'rates', r, 'country'],
            message: say('tax.rate-twice'),
          });
        seen.add(one.country);
      }
    }
  });

/** Tax by kind and country, and the seller named on invoices. Counts from the next charge. */
export const saveTax = staffUse('change settings')(
  'save-tax',
  inputSchema,
  async (actor, input): Promise<Result<null>> => {
    const { kinds: typed, ...settings } = input;
    const site = await currentSite();
    // What was paid before has the tax of before.
    await issueDocuments();
    const taken = new Set(typed.flatMap((kind) => kind.id || []));
    const kinds = typed.map((kind) => {
      const id = kind.id || freeId(slugify(kind.name), taken);
      taken.add(id);
      return { ...kind, id };
    });
    return transaction(async (db) => {
      await lock(db, 'tax');
      await store(db, {
        ...settings,
        kinds,
        rates: kinds.flatMap((kind) => kind.rates.map((one) => ({ ...one, kindId: kind.id }))),
      });
      const of = new Map(kinds.flatMap((kind) => (kind.tiers ?? []).map((tier) => [tier, kind.id] as const)));
      // Only where every kind says which tiers are of it is a tier that none names of none.
      const isWhole = kinds.every((kind) => kind.tiers !== undefined);
      for (const { id } of await listTiers(db))
        if (isWhole || of.has(id)) await setTaxKind(db, [id], of.get(id) ?? null);
      await record(db, actor, siteNow(site), 'tax changed', 'site', {
        way: settings.way,
        kinds: kinds.map(({ name, rates }) => ({ name, rates })),
      });
      return done(null);
    });
  },
);
