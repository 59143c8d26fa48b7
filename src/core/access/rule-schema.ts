import { z } from 'zod';
import { lengthSchema, localDateSchema } from '../offers/offer-schema';
import { say } from '../problem';

const id = z.string().min(1);

export const coverSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('item'), id }),
  z.object({ kind: z.literal('under'), id }),
  z.object({
    kind: z.literal('path'),
    pattern: z.string().startsWith('/', say('address.no-slash')),
  }),
  z.object({ kind: z.literal('category'), id }),
  z.object({ kind: z.literal('tag'), id }),
  z.object({ kind: z.literal('type'), id }),
  z.object({ kind: z.literal('site') }),
]);

export const whoSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('everyone') }),
  z.object({ kind: z.literal('signed-in') }),
  z.object({ kind: z.literal('paying') }),
  z.object({ kind: z.literal('tier'), id }),
  z.object({ kind: z.literal('group'), id }),
  z.object({ kind: z.literal('pass'), id }),
  z.object({ kind: z.literal('member'), id }),
  z.object({ kind: z.literal('staff'), id: id.optional() }),
]);

const holdingRef = z.object({ kind: z.enum(['tier', 'pass']), id });
export const edgeSchema = z.union([
  z.object({ on: localDateSchema }),
  z.object({
    since: z.enum(['held', 'joined', 'published']),
    after: lengthSchema,
    of: holdingRef.optional(),
  }),
]);

export const openerSchema = z.object({
  who: whoSchema,
  opens: edgeSchema.optional(),
  closes: edgeSchema.optional(),
});

/** At most a year from one page to the next. */
export const seriesLengthSchema = lengthSchema.refine(
  ({ n, unit }) => n <= { hour: 8_784, day: 366, week: 53, month: 12, year: 1 }[unit],
  say('length.too-long'),
);

/** The open form of an access rule. `on` is true and `alsoRequire` false where they are left out. */
export const ruleSchema = z.object({
  id,
  name: z.string().optional(),
  on: z.boolean().optional(),
  covers: z.array(coverSchema).min(1, say('rule.covers-nothing')),
  except: z.array(coverSchema).optional(),
  openTo: z.array(openerSchema),
  alsoRequire: z.boolean().optional(),
  meter: z.string().nullish(),
  doorstep: z.unknown().optional(),
  /** On a rule that covers a page and all below it: its children open one by one, each so long after the one before. */
  each: seriesLengthSchema.nullish(),
  /** Whether the first of them opens with the line's own edge, and not one length after it. */
  firstAtOnce: z.boolean().optional(),
  /** False: what it closes is left out of lists, menus, searches and feeds, for those to whom it is closed. */
  listed: z.boolean().optional(),
});
