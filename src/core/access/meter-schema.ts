import { z } from 'zod';
import { whoSchema } from './rule-schema';

export const allowancesSchema = z.array(z.object({ who: whoSchema, reads: z.number().int().min(0) }));
