import { z } from 'zod';
import { teaserSchema } from '../content/teaser';
import { ASKERS } from './asker';

export const meetingSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('notice'), words: z.string() }),
  /** To an address of the site, as "/join", or of another one. */
  z.object({ kind: z.literal('redirect'), to: z.string() }),
]);

/** The open form of a doorstep: what people see where they are not let in, each kind of person by a notice or a redirect. */
export const doorstepSchema = z.object({
  teaser: teaserSchema,
  meets: z.record(z.enum(ASKERS), meetingSchema),
  showSignIn: z.boolean(),
  showTiers: z.boolean(),
  button: z.object({ words: z.string(), to: z.string() }).nullable(),
});
