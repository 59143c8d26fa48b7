import { z } from 'zod';
import { localDateSchema } from '../offers/offer-schema';

/** What the API takes and answers; its description is made from these. Instants are ISO 8601 in UTC. */
const viewpoint = z
  .string()
  .min(1)
  .max(300)
  .default('visitor')
  .meta({
    description:
      'Who asks: `visitor`, `signed-in`, `tier:ID`, `group:ID`, `pass:ID`, `member:ID` or `email:ADDRESS`. Of a tier, a group or a pass: someone who gets it now.',
    examples: ['visitor', 'tier:observer', 'email:maren.oakley@moor.example'],
  });
const on = localDateSchema.optional().meta({
  type: 'string',
  format: 'date',
  description: 'A day of the site, to ask what is decided then; left out: now.',
});
const id = z.string().min(1).max(200).meta({ description: 'The id of an item.' });

export const decisionInput = z.object({
  item: id.optional(),
  path: z
    .string()
    .min(1)
    .max(2_000)
    .optional()
    .meta({ description: 'The address of an item, in its place.' }),
  as: viewpoint,
  on,
});
export const decisionsInput = z.object({ items: z.array(id).min(1).max(500), as: viewpoint, on });
export const itemsInput = z.object({
  type: z.string().max(200).optional().meta({ description: 'Of this kind alone: `page`, `post`, …' }),
  as: viewpoint,
  on,
  page: z.coerce.number().int().min(1).max(100_000).default(1),
  size: z.coerce.number().int().min(1).max(100).default(50),
});
export const itemInput = z.object({ id, as: viewpoint, on });

const instant = z.string().meta({ format: 'date-time' });
export const decisionOutput = z.object({
  item: z.string(),
  path: z.string(),
  title: z.string(),
  isPublished: z.boolean(),
  state: z.enum(['open', 'later', 'ended', 'closed']),
  by: z.enum(['system', 'staff', 'default', 'rule']).meta({ description: 'What decided it.' }),
  rules: z.array(z.string()).meta({ description: 'The ids of the rules that decided it.' }),
  opensAt: instant.optional(),
  endedAt: instant.optional(),
});
export const decisionsOutput = z.object({
  decisions: z.array(decisionOutput),
  missing: z.array(z.string()).meta({ description: 'Ids of which there is no item.' }),
});
export const itemOutput = z.object({
  id: z.string(),
  type: z.string(),
  path: z.string(),
  title: z.string(),
  summary: z.string(),
  publishedAt: instant.nullable(),
  categories: z.array(z.string()),
  tags: z.array(z.string()),
  state: decisionOutput.shape.state,
  opensAt: instant.optional(),
});
export const itemsOutput = z.object({
  items: z.array(itemOutput),
  total: z.number().int(),
  page: z.number().int(),
});
export const itemWithTextOutput = itemOutput.extend({
  text: z.string().meta({ description: 'Markdown: what this viewpoint may read of it.' }),
});
export const problemOutput = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string().optional(),
  errors: z.array(z.object({ field: z.string(), detail: z.string() })).optional(),
});
