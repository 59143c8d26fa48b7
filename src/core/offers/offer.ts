import { z } from 'zod';
import { isLocalDate, UNITS, type LocalDate } from '../calendar';
import { isCurrency } from '../money';
import { say } from '../problem';

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

export const stepSchema = z.discriminatedUnion('kind', [
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
 * The open form of an offer. Amounts in minor units of `currency`.
 * Refuses an offer without a step that is not a trial, and anything after an endless step.
 */
export const offerSchema = z
  .object({
    id: z.string().optional(),
    tier: z.string().min(1),
    currency: z.string().refine(isCurrency, say('currency.missing')),
    joiningFee: z.object({ amount, due: z.enum(['start', 'first-payment']) }).optional(),
    steps: z.array(stepSchema).min(1, say('offer.no-step')).max(12, say('offer.too-many-steps')),
    after: z.enum(['end', 'keep']),
    /** A single payment for a length can be renewed, from so many days before its end. */
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

export type Step = z.infer<typeof stepSchema>;
export type Offer = z.infer<typeof offerSchema>;

export function isEndless(step: Step): boolean {
  return (
    (step.kind === 'repeat' && step.times === null) || (step.kind === 'once' && step.lasts === 'forever')
  );
}

/** Whether an offer comes to an end after which it could be bought once more: its last step is one payment for a length. */
export function isRenewable({ steps, after }: Pick<Offer, 'steps' | 'after'>): boolean {
  const last = steps.at(-1);
  return after === 'end' && last?.kind === 'once' && typeof last.lasts === 'object' && 'n' in last.lasts;
}

/** The steps whose last day had passed by a local date: nothing is left of them. */
export function stepsOver(steps: Step[], today: LocalDate): number[] {
  return steps.flatMap((step, index) =>
    step.kind === 'once' &&
    typeof step.lasts === 'object' &&
    'until' in step.lasts &&
    step.lasts.until < today
      ? [index]
      : [],
  );
}

/** Whether anything is ever charged: such an offer needs a gateway, and its tier counts as paid. */
export function isPaid(offer: Offer): boolean {
  return (offer.joiningFee?.amount ?? 0) > 0 || offer.steps.some((step) => step.amount > 0);
}
