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
const memberId = z.uuid().meta({ description: 'The id of a member.' });
export const membersInput = z.object({
  email: z.string().max(320).optional().meta({ description: 'The member with this address alone.' }),
  tier: z.string().max(200).optional().meta({ description: 'Those who hold this tier now.' }),
  after: z
    .string()
    .max(400)
    .optional()
    .meta({ description: 'The `next` of the page before; left out: the first page.' }),
  size: z.coerce.number().int().min(1).max(100).default(50),
});
export const memberInput = z.object({ id: memberId });
export const memberOutput = z.object({
  id: z.string(),
  email: z.string(),
  name: z.string(),
  joinedAt: instant,
  tiers: z.array(z.string()).meta({ description: 'The ids of the tiers that are held now.' }),
});
export const membersOutput = z.object({
  members: z.array(memberOutput),
  next: z.string().nullable().meta({ description: 'For the page after this one; null: this was the last.' }),
});
export const subscriptionOutput = z.object({
  id: z.string(),
  member: z.string(),
  tier: z.string(),
  offer: z.string(),
  state: z.string(),
  beganAt: instant.nullable(),
  paidThrough: instant.nullable(),
  endedAt: instant.nullable(),
});
const holdingOutput = z.object({
  kind: z.enum(['tier', 'pass']),
  item: z.string().meta({ description: 'The id of the tier or the pass.' }),
  by: z.enum(['subscription', 'gift', 'import', 'order', 'other']),
  order: z.string().optional().meta({ description: 'The number by which it was given.' }),
  since: instant,
  until: instant.nullable(),
});
export const memberFileOutput = memberOutput.extend({
  isConfirmed: z.boolean().meta({ description: 'Whether the address was confirmed.' }),
  isBlocked: z.boolean(),
  holdings: z.array(holdingOutput),
  subscriptions: z.array(subscriptionOutput),
});
export const subscriptionsInput = z.object({
  state: z
    .string()
    .max(20)
    .optional()
    .meta({ description: '`trial`, `active`, `overdue`, `paused`, `cancelling` or `ended`.' }),
  page: z.coerce.number().int().min(1).max(100_000).default(1),
  size: z.coerce.number().int().min(1).max(100).default(50),
});
export const subscriptionsOutput = z.object({
  subscriptions: z.array(subscriptionOutput),
  total: z.number().int(),
  page: z.number().int(),
});

const order = z
  .string()
  .trim()
  .min(1)
  .max(100)
  .regex(/^[\w.:-]+$/)
  .meta({ description: 'The number that the order has where it was made: letters, digits and `. : _ -`.' });
export const orderInput = z.object({ order });
export const putOrderInput = z.object({
  order,
  email: z.email().max(320).meta({ description: 'Of the member; one who is not there yet is added.' }),
  name: z.string().trim().max(120).default('').meta({ description: 'Of a member who is added.' }),
  tier: z.string().max(200).optional().meta({ description: 'The id of the tier that is given.' }),
  pass: z
    .string()
    .max(200)
    .optional()
    .meta({ description: 'The id of the pass that is given, in place of a tier.' }),
  until: z.iso
    .datetime({ offset: true })
    .nullable()
    .default(null)
    .meta({ description: 'When it ends; sent again with another time, it ends then. Null: never.' }),
});
export const orderOutput = z.object({
  order: z.string(),
  member: z.string(),
  kind: z.enum(['tier', 'pass']),
  item: z.string(),
  since: instant,
  until: instant.nullable(),
  isHeld: z.boolean().meta({ description: 'Whether it is held now.' }),
});
export const problemOutput = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string().optional(),
  errors: z.array(z.object({ field: z.string(), detail: z.string() })).optional(),
});
