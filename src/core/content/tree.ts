/** A row of a tree that is drawn as a list: each before what is below it. */
export type TreeRow = { id: string; parentId: string | null; depth: number };
/** Where a row is put: below a parent, before one of its children, or last where `before` is null. */
export type Place = { parentId: string | null; before: string | null };

/** The rows below one, as they follow it. */
function below(rows: TreeRow[], id: string): Set<string> {
  const found = new Set<string>([id]);
  for (const row of rows) if (row.parentId !== null && found.has(row.parentId)) found.add(row.id);
  return found;
}

/**
 * The place that a row gets when it is put where another one is, as deep as is wished: no deeper than below the row above
 * it, no shallower than the row that follows, and never so deep that what is below it would go beyond `mostDepth`.
 * @param at the index, among all rows, of the row in whose place it is put
 */
export function placeAt(
  rows: TreeRow[],
  { id, at, depth, mostDepth }: { id: string; at: number; depth: number; mostDepth: number },
): Place | null {
  const from = rows.findIndex((row) => row.id === id);
  const moved = rows[from];
  if (!moved) return null;
  const own = below(rows, id);
  const over = rows[at];
  // Put into itself, it stays where it is.
  const rest = rows.filter((row) => !own.has(row.id));
  const index =
    !over || own.has(over.id)
      ? rows.slice(0, from).length
      : rest.findIndex((row) => row.id === over.id) + (at > from ? 1 : 0);
  const height = Math.max(...rows.filter((row) => own.has(row.id)).map((row) => row.depth)) - moved.depth;
  const [above, next] = [rest[index - 1], rest[index]];
  const deepest = Math.min(above ? above.depth + 1 : 0, mostDepth - height);
  const shallowest = Math.min(next?.depth ?? 0, Math.max(deepest, 0));
  const wanted = Math.max(shallowest, Math.min(depth, deepest));
  const parent = wanted === 0 ? undefined : rest.slice(0, index).findLast((row) => row.depth === wanted - 1);
  const parentId = parent?.id ?? null;
  const following = rest.slice(index);
  const end = following.findIndex((row) => row.depth < wanted);
  const siblings = (end === -1 ? following : following.slice(0, end)).filter(
    (row) => row.parentId === parentId,
  );
  return { parentId, before: siblings[0]?.id ?? null };
}

/** The rows after one, with what is below it, has been put in a place. */
export function moveTo<T extends TreeRow>(rows: T[], id: string, { parentId, before }: Place): T[] {
  const own = below(rows, id);
  const depth = parentId === null ? 0 : (rows.find((row) => row.id === parentId)?.depth ?? -1) + 1;
  const shift = depth - (rows.find((row) => row.id === id)?.depth ?? depth);
  const rest = rows.filter((row) => !own.has(row.id));
  const moved = rows
    .filter((row) => own.has(row.id))
    .map((row) => ({ ...row, depth: row.depth + shift, ...(row.id === id && { parentId }) }));
  const parentAt = rest.findIndex((row) => row.id === parentId);
  const afterParent = rest.findIndex((row, index) => index > parentAt && row.depth < depth);
  const end = afterParent === -1 ? rest.length : afterParent;
  const index = before === null ? end : rest.findIndex((row) => row.id === before);
  return [...rest.slice(0, index), ...moved, ...rest.slice(index)];
}
