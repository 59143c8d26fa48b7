import { z } from 'zod';
import { openerSchema } from '../access/rule-schema';

const openers = z.array(openerSchema).max(50).nullable();

export const commentSettingsSchema = z.object({
  isOn: z.boolean(),
  readers: openers,
  writers: openers,
  isHeld: z.boolean(),
});
