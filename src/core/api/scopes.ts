import { may, readsAll, type Powers } from '../staff';

/** What a key of the API may be used for. */
export const SCOPES = ['decisions:read', 'content:read', 'members:read', 'members:write'] as const;
export type Scope = (typeof SCOPES)[number];

const NEEDED = {
  'decisions:read': 'look',
  'members:read': 'see members',
  'members:write': 'manage members',
} as const;

/** Whether someone of the staff may do what a scope allows, and so make a key that has it. */
export const mayGrant = (powers: Powers | null, scope: Scope): boolean =>
  scope === 'content:read' ? readsAll(powers) : may(powers, NEEDED[scope]);
