export const STAFF_ROLES = ['owner', 'editor', 'helper', 'viewer'] as const;
export type StaffRole = (typeof STAFF_ROLES)[number];

/** What staff may do. Looking at the Desk is `look`; everything else changes something. */
export const RIGHTS = [
  'look',
  'write content',
  'set access',
  'set tiers',
  'manage members',
  'manage money',
  'move the clock',
  'set up the site',
] as const;
export type Right = (typeof RIGHTS)[number];

const OF_ROLE: Record<StaffRole, ReadonlySet<Right>> = {
  owner: new Set<Right>(RIGHTS),
  editor: new Set<Right>(['look', 'write content', 'set access']),
  helper: new Set<Right>(['look', 'manage members']),
  viewer: new Set<Right>(['look']),
};

export function may(role: StaffRole | null, right: Right): boolean {
  return role !== null && OF_ROLE[role].has(right);
}

/** Whether a role reads everything on the site, whatever the rules say. */
export function readsAll(role: StaffRole | null): boolean {
  return role === 'owner' || role === 'editor';
}
