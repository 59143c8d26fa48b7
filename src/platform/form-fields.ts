import { z } from 'zod';
import { readInstant } from '@/core/calendar';
import { isLocalDate } from '@/core/instants';
import { say } from '@/words/problems';

/** A whole number that may be left empty; as a form sends it, or as an import has it. */
export const optionalCount = (least: string) =>
  z.preprocess(
    (typed) => (typed === '' || typed === null || typed === undefined ? null : Number(typed)),
    z
      .number(say('number.optional'))
      .int(say('number.whole'))
      .min(1, least)
      .max(10_000_000, say('number.too-many'))
      .nullable(),
  );

/** An instant, in any way of ISO 8601 with its offset. */
export const instantSchema = z.iso.datetime({ offset: true }).transform(readInstant);

/** A local date that may be left empty. */
export const optionalDate = z
  .string()
  .refine((typed) => typed === '' || isLocalDate(typed), say('date.unreal'))
  .transform((typed) => (isLocalDate(typed) ? typed : null))
  .nullable();

/** Empty as a form sends it, or left out: nothing was said. */
export const orNothing = (typed: unknown): unknown => (typed === '' ? undefined : typed);

/** The version of a thing that was opened, as a form sends it; nothing where the thing is new. */
export const seenVersion = z.preprocess(orNothing, z.coerce.number().int().optional());

/** The id of a thing that is changed, as a form sends it; nothing where the thing is new. */
export const idIfKnown = z.preprocess(orNothing, z.string().max(200).optional());

/** The id of a thing that may be chosen; null where none is, nothing where the form does not ask. */
export const chosenId = z.preprocess(
  (typed) => (typed === '' ? null : typed),
  z.string().max(200).nullable().optional(),
);
