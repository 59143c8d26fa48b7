import { z } from 'zod';
import { localDateSchema } from '../offers/offer-schema';

export const openWeekSchema = z.object({ tier: z.string(), from: localDateSchema, until: localDateSchema });
