import { z } from 'zod';
import { readPattern } from '@/core/access/paths';
import { coverSchema, openerSchema, seriesLengthSchema } from '@/core/access/rule-schema';
import { say } from '@/words/problems';
import { doorstepDraftSchema } from './doorstep-draft';

/** An address that can be matched: one with encoded slashes or broken escapes would cover nothing. */
const readableCover = coverSchema.refine(
  (cover) => cover.kind !== 'path' || readPattern(cover.pattern) !== null,
  say('rule.address-unreadable'),
);

/** A rule as it is being written. */
export const ruleDraftSchema = z.object({
  id: z.string().optional(),
  name: z.string().trim().min(1, say('rule.no-name')).max(80),
  on: z.boolean().optional(),
  covers: z.array(readableCover).min(1, say('rule.covers-nothing')).max(200),
  except: z.array(readableCover).max(200).optional(),
  openTo: z.array(openerSchema).max(50).optional(),
  alsoRequire: z.boolean().optional(),
  doorstep: doorstepDraftSchema.nullable().optional(),
  meter: z.string().max(200).nullish(),
  listed: z.boolean().optional(),
  /** Null: no series. */
  each: seriesLengthSchema.nullish(),
  firstAtOnce: z.boolean().optional(),
  /** The version that was opened, where an existing rule is changed. */
  version: z.number().int().optional(),
});
