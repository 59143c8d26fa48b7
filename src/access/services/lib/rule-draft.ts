import { z } from 'zod';
import { readPattern } from '@/core/access/paths';
import { coverSchema, openerSchema } from '@/core/access/rule-schema';
import { say } from '@/words/problems';

const doorstepSchema = z.object({
  teaser: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('none') }),
    z.object({ kind: z.literal('summary') }),
    z.object({ kind: z.literal('marker') }),
    z.object({
      kind: z.literal('words'),
      count: z
        .number(say('teaser.no-number'))
        .int(say('teaser.whole-words'))
        .min(1, say('teaser.at-least-a-word'))
        .max(2000, say('teaser.too-many-words')),
    }),
  ]),
  visitorNotice: z.string().trim().max(300),
  memberNotice: z.string().trim().max(300),
  showSignIn: z.boolean(),
});

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
  doorstep: doorstepSchema.nullable().optional(),
  /** The version that was opened, where an existing rule is changed. */
  version: z.number().int().optional(),
});
