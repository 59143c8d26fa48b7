import { z } from 'zod';
import { MAX_NOTCHES, TINTS } from './key-cut';
import { say } from './problem';

export const keyCutSchema = z.object({
  notches: z
    .array(z.number().int().min(1).max(3))
    .min(1, say('key.no-notch'))
    .max(MAX_NOTCHES, say('key.too-many-notches')),
  tint: z.enum(TINTS),
});
