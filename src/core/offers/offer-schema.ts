import { z } from 'zod';
import { isLocalDate, UNITS, type LocalDate } from '../instants';
import { isCurrency } from '../money';
import { say } from '../problem';
import { isEndless, isRenewable, type Offer } from './offer';

/** Longest counts that keep every computed date inside the calendar's range. */
const LIMIT = { hour: 87_600, day: 3_660, week: 520, month: 120, year: 10 } as const;

export const lengthSchema = z
  .object({ n: z.number().int().min(1), unit: z.enum(UNITS) })
  .refine((length) => length.n <= LIMIT[length.unit], { message: say('length.too-long') });

const amount = z.number().int(say('offer.minor-units')).min(0, say('amount.below-zero'));
/** A local date that exists. */
export const localDateSchema = z.custom<LocalDate>(
  (value) => typeof value === 'string' && isLocalDate(value),
  say('date.unreal'),
);
const tier = z.string().min(1).optional();
const untilDate = z.object({ until: localDateSchema });

const stepSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('trial'), amount, lasts: lengthSchema, tier }),
  z.object({
    kind: z.literal('repeat'),
    amount,
    every: lengthSchema,
    times: z.number().int().min(1).max(1200).nullable(),
    tier,
  }),
  z.object({
    kind: z.literal('once'),
    amount,
    lasts: z.union([lengthSchema, z.literal('forever'), untilDate]),
    tier,
  }),
]);

/**
 * Refuses an offer without a step that is not a trial, and anything after an endless step.
 */
export const offerSchema: z.ZodType<Offer> = z
  .object({
    id: z.string().optional(),
    tier: z.string().min(1),
    currency: z.string().refine(isCurrency, say('currency.missing')),
    joiningFee: z.object({ amount, due: z.enum(['start', 'first-payment']) }).optional(),
    steps: z.array(stepSchema).min(1, say('offer.no-step')).max(12, say('offer.too-many-steps')),
    after: z.enum(['end', 'keep']),
    renewal: z.object({ daysBefore: z.number().int().min(0).max(366) }).optional(),
  })
  .superRefine((offer, context) => {
    if (offer.steps.every((step) => step.kind === 'trial')) {
      context.addIssue({
        code: 'custom',
        path: ['steps'],
        message: say('offer.trial-alone'),
      });
    }
    const endless = offer.steps.findIndex(isEndless);
    if (endless !== -1 && endless < offer.steps.length - 1) {
      context.addIssue({
        code: 'custom',
        path: ['steps', endless + 1],
        message: say('offer.after-endless'),
      });
    }
    if (offer.renewal && !isRenewable(offer)) {
      context.addIssue({
        code: 'custom',
        path: ['renewal'],
        message: say('offer.not-renewable'),
      });
    }
  });
