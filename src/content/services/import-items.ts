import { parse } from 'yaml';
import { z } from 'zod';
import { addLength } from '@/core/calendar';
import { plainText } from '@/core/content/prose';
import { problemsOf } from '@/core/problem';
import { refused, refusedField, type Result } from '@/platform/result';
import type { ProblemCode } from '@/words/problems';
import { holdsDirective, readMarkdown } from './lib/markdown';
import { saveItem } from './save-item';
import { staffUse } from '@/platform/use';
import { slug } from '@/platform/inputs';
import { instantSchema } from '@/platform/form-fields';

const headSchema = z.object({
  type: z.enum(['page', 'post']),
  title: z.string().min(1),
  slug: z.string().optional(),
  summary: z.string().default(''),
  author: z.string().default(''),
  parent: z.string().nullable().default(null),
  category: z.string().optional(),
  tags: z.array(z.string()).optional(),
  /** Days ago that it was published; left out for a draft. */
  published: z.number().min(0).optional(),
});

/**
 * Imports a page or a post from Markdown with a head in YAML. `id` names the item, so that importing again
 * changes it instead of making another.
 */
const inputSchema = z.object({
  id: slug,
  text: z.string(),
  now: instantSchema,
  zone: z.string().max(60),
});

export const importItem = staffUse('write content')(
  'import-item',
  inputSchema,
  async (actor, { id, text, now, zone }): Promise<Result<{ id: string; path: string }>> => {
    const match = /^---\n([\s\S]*?)\n---\n([\s\S]*)$/.exec(text);
    if (!match) return refusedField(id, 'import.no-head');
    const head = headSchema.safeParse(parse(match[1] ?? ''));
    if (!head.success) return refused(problemsOf<ProblemCode>(head.error));
    const { parent, category, published, ...rest } = head.data;
    const body = readMarkdown(match[2] ?? '', { picture: () => null, itemAt: () => null });
    if (holdsDirective(plainText(body))) return refusedField(id, 'import.section-unreadable');
    return saveItem(actor, {
      ...rest,
      id,
      slug: rest.slug ?? id,
      parentId: parent,
      body,
      categories: category ? [category] : [],
      publish:
        published === undefined ? 'draft' : { at: addLength(now, { n: -published, unit: 'day' }, zone) },
    });
  },
);
