import { z } from 'zod';
import { ACCOUNT_SECTIONS } from './account-sections';

export const accountSectionSchema = z.object({ id: z.enum(ACCOUNT_SECTIONS), isOn: z.boolean() });
export const accountSectionsSchema = z.array(accountSectionSchema);
