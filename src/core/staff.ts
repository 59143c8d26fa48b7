import { FILE, PAGE } from './content/item';

export const STAFF_ROLES = ['owner', 'editor', 'helper', 'viewer'] as const;
export type StaffRole = (typeof STAFF_ROLES)[number];
/** The roles whose rights the owner sets; an owner always has all of them. */
export const SET_ROLES = ['editor', 'helper', 'viewer'] as const satisfies readonly StaffRole[];
export type SetRole = (typeof SET_ROLES)[number];

/** What staff may do, by area. Opening the Desk is `look`, which all staff may. */
export const RIGHTS_BY_AREA = {
  content: ['write pages', 'write posts', 'publish', 'arrange content'],
  members: ['see members', 'manage members'],
  money: ['see money', 'refund', 'manage money', 'connect gateways'],
  access: ['set access', 'set tiers'],
  site: ['move the clock', 'change settings', 'set up the site'],
} as const;
export type Area = keyof typeof RIGHTS_BY_AREA;
export type Right = 'look' | (typeof RIGHTS_BY_AREA)[Area][number];
export const RIGHTS: readonly Right[] = ['look', ...Object.values(RIGHTS_BY_AREA).flat()];

/** Either of the rights to write, for what belongs to no item yet: a file, a picture, a draft. */
export const WRITES = ['write pages', 'write posts'] as const satisfies readonly Right[];

/** A right that is of no use without another. */
const NEEDS: Partial<Record<Right, Right>> = {
  'manage members': 'see members',
  refund: 'see money',
  'manage money': 'see money',
};

/** What the staff of one role may do and read. Categories are ids; what lies below one belongs to it. */
export type Powers = {
  role: StaffRole;
  rights: readonly Right[];
  /** Whether they read everything on the site, whatever the rules say; shut categories apart. */
  readsAll: boolean;
  /** The categories whose posts they may write; null: all. */
  writesIn: readonly string[] | null;
  /** The categories that are shut to them: they neither read everything there nor write. */
  shutFrom: readonly string[];
};

const OWNER: Powers = { role: 'owner', rights: RIGHTS, readsAll: true, writesIn: null, shutFrom: [] };

/** The rights that a role can be given; those who set up the site could give themselves any. */
export const GIVEN_RIGHTS: readonly Right[] = RIGHTS.filter(
  (right) => right !== 'look' && right !== 'set up the site',
);

/** What a role may until the owner sets it. */
const DEFAULTS: Record<SetRole, Omit<Powers, 'role'>> = {
  editor: {
    rights: ['look', ...RIGHTS_BY_AREA.content, 'see members', 'see money', 'set access'],
    readsAll: true,
    writesIn: null,
    shutFrom: [],
  },
  helper: {
    rights: ['look', 'see members', 'manage members', 'see money'],
    readsAll: false,
    writesIn: null,
    shutFrom: [],
  },
  viewer: { rights: ['look', 'see members', 'see money'], readsAll: false, writesIn: null, shutFrom: [] },
};

export type RoleSettings = Partial<Record<SetRole, Omit<Powers, 'role'>>>;

/** What a role may, by what the owner set. Staff always may look, and a right that needs another counts only with it. */
export function powersOf(role: StaffRole, set: RoleSettings): Powers {
  if (role === 'owner') return OWNER;
  const own = set[role] ?? DEFAULTS[role];
  const has = (right: Right): boolean => right === 'look' || own.rights.includes(right);
  const rights = RIGHTS.filter((right) => {
    const needed = NEEDS[right];
    return has(right) && (!needed || has(needed));
  });
  return { ...own, role, rights };
}

export const may = (powers: Powers | null, right: Right): boolean => powers?.rights.includes(right) ?? false;

type Placed = { type: string; categories: readonly string[] };

/** Whether an item is in a category that is shut to a role. */
export const isShut = (shutFrom: readonly string[], { categories }: Pick<Placed, 'categories'>): boolean =>
  categories.some((category) => shutFrom.includes(category));

/**
 * Whether staff may write an item, by its kind and its categories (with those above them): pages and whatever else has a place
 * in no category by `write pages`, the other kinds by `write posts`.
 */
export function mayWrite(powers: Powers | null, item: Placed): boolean {
  if (!powers || isShut(powers.shutFrom, item)) return false;
  if (item.type === PAGE) return may(powers, 'write pages');
  // A file belongs to whatever offers it.
  if (item.type === FILE) return WRITES.some((right) => may(powers, right));
  if (!may(powers, 'write posts')) return false;
  const { writesIn } = powers;
  return writesIn === null || item.categories.some((category) => writesIn.includes(category));
}

/** Whether a role reads everything on the site that is not shut to it. */
export const readsAll = (powers: Powers | null): boolean => powers?.readsAll ?? false;
