/** What an entry of the site's menu leads to. */
export const ENTRY_KINDS = [
  'item',
  'kind',
  'category',
  'tag',
  'archive',
  'search',
  'join',
  'offer',
  'sign-in',
  'account',
  'outside',
  'heading',
] as const;
export type EntryKind = (typeof ENTRY_KINDS)[number];

/** How an entry is shown. */
export const LOOKS = ['link', 'button', 'icon', 'panel'] as const;
export type Look = (typeof LOOKS)[number];

/** How entries of a kind can be shown: a link, always, and what else suits what they lead to. */
export function looksOf(kind: EntryKind): readonly Look[] {
  switch (kind) {
    case 'join':
      return LOOKS;
    case 'offer':
      return ['link', 'button', 'icon'];
    case 'sign-in':
    case 'account':
      return ['link', 'icon', 'panel'];
    default:
      return ['link'];
  }
}

/** Who is shown an entry. */
export const AUDIENCES = ['everyone', 'signed-out', 'signed-in', 'can-open'] as const;
export type Audience = (typeof AUDIENCES)[number];

/** Whether a person is shown an entry that they can open, or cannot. */
export function isShownTo(
  audience: Audience,
  { isSignedIn, canOpen }: { isSignedIn: boolean; canOpen: boolean },
): boolean {
  switch (audience) {
    case 'everyone':
      return true;
    case 'signed-out':
      return !isSignedIn;
    case 'signed-in':
      return isSignedIn;
    case 'can-open':
      return canOpen;
  }
}

type InTree = { id: string; parentId: string | null };
export type Tree<T> = T & { below: Tree<T>[] };

/** Rows that name their parents, in order, as a tree. A row whose parent is not among them is left out. */
export function treeOf<T extends InTree>(rows: T[], parentId: string | null = null): Tree<T>[] {
  const below = new Map<string | null, T[]>();
  for (const row of rows) below.set(row.parentId, [...(below.get(row.parentId) ?? []), row]);
  const grow = (parent: string | null, depth: number): Tree<T>[] =>
    depth > 50 ? [] : (below.get(parent) ?? []).map((row) => ({ ...row, below: grow(row.id, depth + 1) }));
  return grow(parentId, 0);
}

/** A tree as rows with their depth, each before what is below it. */
export const flat = <T extends InTree>(trees: Tree<T>[], depth = 0): { row: T; depth: number }[] =>
  trees.flatMap((tree) => [{ row: tree, depth }, ...flat(tree.below, depth + 1)]);
