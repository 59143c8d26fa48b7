import { z } from 'zod';
import { addLength } from '@/core/calendar';
import { refusedField, type Result } from '@/platform/result';
import { saveItem } from './save-item';
import { staffUse } from '@/platform/use';
import { slug } from '@/platform/inputs';
import { instantSchema } from '@/platform/form-fields';
import { documentOf, splitItem } from './lib/item-markdown';

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

export const importItem = staffUse('arrange content')(
  'import-item',
  inputSchema,
  async (actor, { id, text, now, zone }): Promise<Result<{ id: string; path: string }>> => {
    const written = splitItem(text);
    if (!written.ok)
      return refusedField(id, written.why === 'no-head' ? 'import.no-head' : 'import.bad-head');
    const { head } = written;
    const body = documentOf(written, { picture: () => null, itemAt: () => null });
    if (!body) return refusedField(id, 'import.section-unreadable');
    const { published } = head;
    return saveItem(actor, {
      id,
      type: head.type ?? 'post',
      title: head.title,
      slug: head.slug ?? id,
      parentId: head.parent ?? null,
      summary: head.summary,
      author: head.author,
      tags: head.tags,
      body,
      categories: head.category ? [head.category] : [],
      publish:
        published === undefined
          ? 'draft'
          : {
              at:
                typeof published === 'number'
                  ? addLength(now, { n: -published, unit: 'day' }, zone)
                  : published,
            },
    });
  },
);
