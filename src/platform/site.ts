import { powersOf as staffPowers, type Powers } from '@/core/staff';
import { problem } from '@/words/problems';
import { pool, type Db } from '@/platform/store/db';
import { findSite, type Mode, type Site } from '@/platform/store/site';
import { deskWordsOf } from '@/words/desk';
import { wordsOf, type Words } from '@/words/words';
import { NotAllowed, type Actor } from './actor';
import { shelved } from './shelf';

export class NotSetUp extends Error {
  constructor() {
    super('This site has not been set up yet. Run “npm run create-site”, then sign in at /desk.');
  }
}

/** The site as it is for what belongs to a mode: its clock, its accounts, its holdings. */
export const inMode = (site: Site, mode: Mode): Site => ({ ...site, mode });

/**
 * The mode in which a person joins: the site's, or, for staff who ask for it, test mode. @throws NotAllowed for others
 */
export function joiningMode(site: Site, actor: Pick<Actor, 'staffRole'>, asked: string): Mode {
  if (asked !== 'test' || site.mode === 'test') return site.mode;
  if (!actor.staffRole) throw new NotAllowed(problem('staff.test-checkout'));
  return 'test';
}

/** The site. Inside a transaction, by its `db`. @throws NotSetUp before it exists */
export async function currentSite(db?: Db): Promise<Site> {
  const site = db ? await findSite(db) : await shelved('site', () => findSite(pool()));
  if (!site) throw new NotSetUp();
  return site;
}

/** What someone may do and read as staff; null for all others. Outside of transactions. */
export async function powersOf({ staffRole }: Pick<Actor, 'staffRole'>): Promise<Powers | null> {
  if (staffRole === null) return null;
  // Before there is a site, its first owner is there.
  return staffPowers(staffRole, staffRole === 'owner' ? {} : (await currentSite()).roles);
}

/** How the site speaks to members, for use cases that are asked in no transaction. */
export const siteWords = async (): Promise<Words> => wordsOf(await currentSite());

/** How the Desk speaks. */
export const deskWords = async (): Promise<Words> => deskWordsOf(await currentSite());
