import { z } from 'zod';
import { ASKERS } from '@/core/access/asker';
import { isSafeHref } from '@/core/addresses';
import { say } from '@/words/problems';

const href = z.string().trim().max(2000).refine(isSafeHref, say('link.unsafe'));

const count = z
  .number(say('teaser.no-number'))
  .int(say('teaser.whole-words'))
  .min(1, say('teaser.at-least-a-word'))
  .max(2000, say('teaser.too-many-words'));

/** A doorstep as it is being written. */
export const doorstepDraftSchema = z.object({
  teaser: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('none') }),
    z.object({ kind: z.literal('summary') }),
    z.object({ kind: z.literal('marker') }),
    z.object({ kind: z.literal('words'), count }),
    z.object({ kind: z.literal('paragraphs'), count: count.max(50, say('teaser.too-many-paragraphs')) }),
  ]),
  meets: z.record(
    z.enum(ASKERS),
    z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('notice'), words: z.string().trim().max(1000) }),
      z.object({ kind: z.literal('redirect'), to: href }),
    ]),
  ),
  showSignIn: z.boolean(),
  showTiers: z.boolean(),
  button: z
    .object({ words: z.string().trim().min(1, say('doorstep.no-button-words')).max(80), to: href })
    .nullable(),
});
