import { may, readsAll, type StaffRole } from '../staff';

/** What a key of the API may be used for. */
export const SCOPES = ['decisions:read', 'content:read'] as const;
export type Scope = (typeof SCOPES)[number];

/** Whether someone of a staff role may do what a scope allows, and so make a key that has it. */
export const mayGrant = (role: StaffRole | null, scope: Scope): boolean =>
  scope === 'content:read' ? readsAll(role) : may(role, 'look');
