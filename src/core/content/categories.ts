type Category = { id: string; parentId: string | null };

/** Categories with all that they lie below; what is not there is left out. */
export function withParents(all: readonly Category[], ids: readonly string[]): string[] {
  const byId = new Map(all.map((one) => [one.id, one]));
  const found = new Set<string>();
  for (const id of ids)
    for (let one = byId.get(id); one && !found.has(one.id); one = byId.get(one.parentId ?? ''))
      found.add(one.id);
  return [...found];
}
