import { z } from 'zod';
import { isLocalDate } from '@/core/calendar';

/** A whole number that may be left empty; as a form sends it, or as an import has it. */
export const optionalCount = (least: string) =>
  z.preprocess(
    (typed) => (typed === '' || typed === null || typed === undefined ? null : Number(typed)),
    z
      .number('Type a whole number, or leave it empty.')
      .int('Whole numbers only.')
      .min(1, least)
      .max(10_000_000, 'That is too many.')
      .nullable(),
  );

/** A local date that may be left empty. */
export const optionalDate = z
  .string()
  .refine((typed) => typed === '' || isLocalDate(typed), 'That date does not exist.')
  .transform((typed) => typed || null)
  .nullable();
