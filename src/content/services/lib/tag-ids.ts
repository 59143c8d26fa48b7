import { slugify } from '@/core/content/slug';
import { addTags, listTags } from '@/content/store/tags';
import { freeId } from '@/platform/free-id';
import type { Db } from '@/platform/store/db';

/** The ids of tags that were named, by id or by name; made where they are new. */
export async function tagIds(db: Db, names: string[]): Promise<string[]> {
  const known = await listTags(db);
  const taken = new Set(known.map(({ id }) => id));
  const made: { id: string; name: string }[] = [];
  const ids = names.map((name) => {
    const same = (tag: { id: string; name: string }): boolean =>
      tag.id === name || tag.name.toLowerCase() === name.toLowerCase();
    const tag = [...known, ...made].find(same);
    if (tag) return tag.id;
    const id = freeId(slugify(name), taken);
    taken.add(id);
    made.push({ id, name });
    return id;
  });
  await addTags(db, made);
  return [...new Set(ids)];
}
